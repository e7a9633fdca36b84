-- A board is what it started from, what it is now, and the number of the last line that is in it: any state between
-- follows from the log. `edition` is another with every change, so that what was read once need not be read again.
alter table board add column origin text;
alter table board add column start jsonb;
alter table board add column content jsonb;
alter table board add column upto integer not null default 0;
alter table board add column edition uuid not null default gen_random_uuid();
update board b set (origin, start) = (
    select v.origin, v.content from board_version v
    where v.board_id = b.id and v.origin not in ('trace', 'modification', 'replacement') order by v.version desc limit 1),
  content = (select v.content from board_version v where v.board_id = b.id order by v.version desc limit 1),
  upto = (select j.last_seq from job j where j.id = b.job_id);
alter table board alter column origin set not null;
alter table board alter column start set not null;
alter table board alter column content set not null;
alter table board add constraint board_origin_known check (origin in ('typical', 'netlist', 'json', 'copy', 'empty', 'edit'));
alter table board add constraint board_upto_counts check (upto >= 0);
drop table board_version;
-- What was written here and never read stands in the log as well.
drop table fault_call;
drop table replacement;
alter table unit drop column family_id;
drop table family;
-- A wire is noted once, whichever end is named first.
delete from harness a using harness b where a.id > b.id and a.job_id = b.job_id and (
  (a.from_board, lower(a.from_pin), a.to_board, lower(a.to_pin)) = (b.from_board, lower(b.from_pin), b.to_board, lower(b.to_pin))
  or (a.from_board, lower(a.from_pin), a.to_board, lower(a.to_pin)) = (b.to_board, lower(b.to_pin), b.from_board, lower(b.from_pin)));
create unique index harness_once on harness (
  least(from_board, to_board), greatest(from_board, to_board),
  (case when from_board < to_board then lower(from_pin) else lower(to_pin) end),
  (case when from_board < to_board then lower(to_pin) else lower(from_pin) end));
-- What is asked for with every line, and with every look at the bench.
create index ledger_facts on ledger_line (board_id, seq) where kind in ('trace', 'modification', 'replacement');
create index ledger_isolations on ledger_line (job_id) where kind in ('isolation', 'reversal');
