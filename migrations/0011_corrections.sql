-- What was taken in wrongly is put right by a line of the log; a nameplate among it makes its board another.
alter table ledger_line drop constraint ledger_kind_known;
alter table ledger_line add constraint ledger_kind_known check (kind in ('reading', 'powered-reading', 'finding', 'isolation',
  'discharge-proof', 'recharged', 'action', 'override', 'fault', 'check-skipped', 'step-closed', 'replacement',
  'safety-test', 'trace', 'sum', 'modification', 'modification-verdict', 'sweep', 'sweep-rows', 'site', 'job-state',
  'correction', 'reversal'));
drop index ledger_facts;
create index ledger_facts on ledger_line (board_id, seq) where kind in ('trace', 'modification', 'replacement', 'correction');
drop index ledger_isolations;
create index ledger_isolations on ledger_line (job_id) where kind in ('isolation', 'powered-reading', 'correction', 'reversal');
