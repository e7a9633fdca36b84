-- A reading on the unit under power is a line of its own: it makes the unit live.
alter table ledger_line drop constraint ledger_kind_known;
alter table ledger_line add constraint ledger_kind_known check (kind in ('reading', 'powered-reading', 'finding', 'isolation',
  'discharge-proof', 'recharged', 'action', 'override', 'fault', 'check-skipped', 'step-closed', 'replacement',
  'safety-test', 'trace', 'sum', 'modification', 'modification-verdict', 'sweep', 'sweep-rows', 'site', 'job-state',
  'reversal'));
