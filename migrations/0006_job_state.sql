-- How a job ended and what it waits for is a line of its log, with who said so and when.
alter table ledger_line drop constraint ledger_kind_known;
alter table ledger_line add constraint ledger_kind_known check (kind in ('reading', 'finding', 'isolation', 'discharge-proof',
  'recharged', 'action', 'override', 'fault', 'check-skipped', 'step-closed', 'replacement', 'safety-test', 'trace', 'sum',
  'modification', 'modification-verdict', 'sweep', 'sweep-rows', 'site', 'job-state', 'reversal'));
alter table ledger_line add constraint ledger_outcome_known check (kind <> 'job-state'
  or coalesce(body->>'outcome', '') in ('open', 'repaired', 'not-worth-repair', 'no-fault-found', 'returned'));
-- What was said before this is known, by whom and when it was said is not.
update job set last_seq = last_seq + 1 where outcome <> 'open' or waiting_for <> '';
insert into ledger_line (job_id, seq, kind, body, actor, at, client_key)
  select id, last_seq, 'job-state', jsonb_build_object('outcome', outcome, 'waitingFor', left(waiting_for, 200)),
    'not noted', now(), gen_random_uuid()
  from job where outcome <> 'open' or waiting_for <> '';
alter table job drop column outcome;
alter table job drop column waiting_for;
