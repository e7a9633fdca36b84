-- Kept sums, changes of a board on purpose, sweeps with their rows. What is fitted or changed makes a board version too.
alter table ledger_line drop constraint ledger_kind_known;
alter table ledger_line add constraint ledger_kind_known check (kind in ('reading', 'finding', 'isolation', 'discharge-proof',
  'recharged', 'action', 'override', 'fault', 'check-skipped', 'step-closed', 'replacement', 'safety-test', 'trace', 'sum',
  'modification', 'modification-verdict', 'sweep', 'sweep-rows', 'reversal'));
alter table ledger_line drop constraint ledger_board_where_needed;
alter table ledger_line add constraint ledger_board_where_needed
  check (kind not in ('reading', 'discharge-proof', 'fault', 'replacement', 'trace', 'modification') or board_id is not null);
alter table board_version drop constraint board_version_origin_known;
alter table board_version add constraint board_version_origin_known
  check (origin in ('typical', 'netlist', 'json', 'copy', 'empty', 'edit', 'trace', 'modification', 'replacement'));
