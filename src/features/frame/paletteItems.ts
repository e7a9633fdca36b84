import Fuse from 'fuse.js';
import { boardNets, placesOnNet } from '@/core/circuit';
import type { Board } from '@/core/circuit';
import { STEPS, STEP_NAMES, TOOLS } from '@/core/job';
import { marking } from '@/core/part';
import { shortValue } from '@/core/part';
import { SUMS } from '@/core/sums';
import type { FoundGroup } from '@/ui/Finder';

/** What can be found: its words, what stands beside them, further words that lead to it, and where it goes. */
export interface PaletteItem {
  readonly group: 'Steps' | 'Parts' | 'Nets and places' | 'Jobs' | 'Sums' | 'Actions';
  readonly key: string;
  readonly words: string;
  readonly note?: string;
  readonly also?: string;
  /** An address, or what is done. */
  readonly to: string | (() => void);
}

/** A job as it is found. */
export interface FoundJob {
  readonly tag: string;
  readonly unit: string;
  readonly serial: string;
  readonly archived: boolean;
}

/** Steps, parts, nets and places of one job. */
export function jobItems(tag: string, board: Board): readonly PaletteItem[] {
  const at = (path: string): string => `/jobs/${tag}/${path}`;
  const steps = STEPS.map((step, i): PaletteItem => ({
    group: 'Steps',
    key: step,
    words: STEP_NAMES[step],
    note: `g ${i + 1}`,
    to: at(step),
  }));
  const tools = Object.entries(TOOLS).map(([tool, { name, key }]): PaletteItem => ({
    group: 'Steps',
    key: tool,
    words: name,
    note: `g ${key}`,
    to: at(tool),
  }));
  const parts = board.parts.map((p): PaletteItem => ({
    group: 'Parts',
    key: p.ref,
    words: p.ref,
    note: [p.kind, shortValue(p), marking(p)].filter(Boolean).join(' '),
    also: p.nets.join(' '),
    to: at(`board?part=${encodeURIComponent(p.ref)}`),
  }));
  const nets = boardNets(board).map((net): PaletteItem => {
    const places = placesOnNet(board, net).map((p) => p.words);
    return {
      group: 'Nets and places',
      key: net,
      words: net,
      ...(places[0] === undefined ? {} : { note: places[0] }),
      also: places.join(', '),
      to: at(`board?net=${encodeURIComponent(net)}`),
    };
  });
  return [...steps, ...tools, ...parts, ...nets];
}

/** What is found on every page; tag: of the job that is open, whose board the sums then take their figures from. */
export function workshopItems(jobs: readonly FoundJob[], tag: string | null): readonly PaletteItem[] {
  return [
    ...jobs.map((job): PaletteItem => ({
      group: 'Jobs',
      key: job.tag,
      words: job.tag,
      note: job.archived ? `${job.unit}, put away` : job.unit,
      also: job.serial,
      to: `/jobs/${job.tag}`,
    })),
    ...SUMS.map((sum): PaletteItem => ({
      group: 'Sums',
      key: sum.name,
      words: sum.title,
      also: sum.name,
      to: `${tag === null ? '' : `/jobs/${tag}`}/sums?sum=${sum.name}`,
    })),
    { group: 'Actions', key: 'bench', words: 'Bench', also: 'jobs home start', to: '/' },
    { group: 'Actions', key: 'new', words: 'New job', also: 'intake take in', to: '/jobs/new' },
    {
      group: 'Actions',
      key: 'settings',
      words: 'Settings',
      also: 'workshop zone decimals benches mains',
      to: '/settings',
    },
    { group: 'Actions', key: 'shorthand', words: 'Bench shorthand', also: 'trace type help', to: '/shorthand' },
  ];
}

/** So many of each group are shown. */
const MOST_IN_GROUP = 6;

/**
 * The items that words lead to, best first, by group in the order of their best. Where nothing is typed: the ways about the
 * workshop, or with `anywhere` some of every group.
 */
export function found(
  items: readonly PaletteItem[],
  wanted: string,
  anywhere = false,
): readonly FoundGroup<PaletteItem>[] {
  const text = wanted.trim();
  const exact = (item: PaletteItem): boolean => item.words.toLowerCase() === text.toLowerCase();
  const list =
    text === ''
      ? items.filter((i) => anywhere || i.group === 'Steps' || i.group === 'Jobs' || i.group === 'Actions')
      : new Fuse(items, {
          keys: [
            { name: 'words', weight: 3 },
            { name: 'note', weight: 1 },
            { name: 'also', weight: 0.5 },
          ],
          threshold: 0.3,
          ignoreLocation: true,
        })
          .search(text)
          .map((r) => r.item)
          .sort((a, b) => Number(exact(b)) - Number(exact(a)));
  const groups = new Map<PaletteItem['group'], PaletteItem[]>();
  for (const item of list) {
    const own = groups.get(item.group) ?? groups.set(item.group, []).get(item.group)!;
    if (own.length < (text === '' ? 12 : MOST_IN_GROUP)) own.push(item);
  }
  return [...groups].map(([heading, list]) => ({ heading, items: list }));
}
