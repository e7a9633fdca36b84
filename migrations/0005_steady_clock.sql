-- A line carries the steady clock of the machine that wrote it beside the wall clock: how long a proof has held must not
-- hang on a clock that can be set. Lines from before have none, and their proofs have run out.
alter table ledger_line add column boot text;
alter table ledger_line add column uptime double precision;
alter table ledger_line add constraint ledger_uptime_with_boot check ((boot is null) = (uptime is null));
-- Whether the place is wet decides how many volts may be touched.
alter table ledger_line drop constraint ledger_kind_known;
alter table ledger_line add constraint ledger_kind_known check (kind in ('reading', 'finding', 'isolation', 'discharge-proof',
  'recharged', 'action', 'override', 'fault', 'check-skipped', 'step-closed', 'replacement', 'safety-test', 'trace', 'sum',
  'modification', 'modification-verdict', 'sweep', 'sweep-rows', 'site', 'reversal'));
