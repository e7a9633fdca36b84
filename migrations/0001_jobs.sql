create table family (
  id bigint generated always as identity primary key,
  name text not null constraint family_name_key unique,
  printed text[] not null default '{}',
  constraint family_name_filled check (length(trim(name)) between 1 and 120)
);

create table unit (
  id bigint generated always as identity primary key,
  family_id bigint constraint unit_family_fkey references family (id),
  name text not null,
  serial text not null default '',
  nameplate jsonb not null,
  constraint unit_name_filled check (length(trim(name)) between 1 and 120),
  constraint unit_nameplate_object check (jsonb_typeof(nameplate) = 'object')
);

create table job (
  id bigint generated always as identity primary key,
  tag text not null constraint job_tag_key unique,
  unit_id bigint not null constraint job_unit_fkey references unit (id),
  complaint text not null default '',
  symptoms text[] not null default '{}',
  history text not null default '',
  accessories text not null default '',
  sources jsonb not null,
  waiting_for text not null default '',
  outcome text not null default 'open',
  last_seq integer not null default 0,
  created_at timestamptz not null,
  constraint job_tag_shape check (tag ~ '^[A-Z0-9][A-Z0-9-]{0,19}$'),
  constraint job_outcome_known check (outcome in ('open', 'repaired', 'not-worth-repair', 'no-fault-found', 'returned')),
  constraint job_sources_list check (jsonb_typeof(sources) = 'array' and jsonb_array_length(sources) > 0)
);

create table board (
  id bigint generated always as identity primary key,
  job_id bigint not null constraint board_job_fkey references job (id),
  label text not null,
  constraint board_label_key unique (job_id, label),
  constraint board_of_job_key unique (id, job_id)
);

create table board_version (
  id bigint generated always as identity primary key,
  board_id bigint not null constraint board_version_board_fkey references board (id),
  version integer not null,
  origin text not null,
  content jsonb not null,
  created_at timestamptz not null,
  constraint board_version_key unique (board_id, version),
  constraint board_version_counts check (version >= 1),
  constraint board_version_origin_known check (origin in ('typical', 'netlist', 'json', 'copy', 'edit'))
);

create table harness (
  id bigint generated always as identity primary key,
  job_id bigint not null,
  from_board bigint not null,
  from_pin text not null,
  to_board bigint not null,
  to_pin text not null,
  constraint harness_from_fkey foreign key (from_board, job_id) references board (id, job_id),
  constraint harness_to_fkey foreign key (to_board, job_id) references board (id, job_id),
  constraint harness_two_boards check (from_board <> to_board)
);

create table ledger_line (
  id bigint generated always as identity primary key,
  job_id bigint not null constraint ledger_job_fkey references job (id),
  seq integer not null,
  board_id bigint,
  kind text not null,
  body jsonb not null,
  actor text not null,
  at timestamptz not null,
  reverses bigint,
  client_key uuid not null,
  constraint ledger_seq_key unique (job_id, seq),
  constraint ledger_client_key unique (job_id, client_key),
  constraint ledger_of_job_key unique (id, job_id),
  constraint ledger_reversed_once unique (reverses),
  constraint ledger_board_fkey foreign key (board_id, job_id) references board (id, job_id),
  constraint ledger_reverses_fkey foreign key (reverses, job_id) references ledger_line (id, job_id),
  constraint ledger_kind_known check (kind in ('reading', 'finding', 'isolation', 'discharge-proof', 'recharged', 'action',
    'override', 'fault', 'check-skipped', 'step-closed', 'replacement', 'safety-test', 'reversal')),
  constraint ledger_reversal_names_line check ((kind = 'reversal') = (reverses is not null)),
  constraint ledger_board_where_needed check (kind not in ('reading', 'discharge-proof', 'fault', 'replacement') or board_id is not null),
  constraint ledger_actor_filled check (length(trim(actor)) between 1 and 60),
  constraint ledger_body_object check (jsonb_typeof(body) = 'object')
);

create index ledger_line_by_job on ledger_line (job_id, seq desc);

-- What was written down stays written down: corrections are new lines.
create function ledger_is_append_only() returns trigger language plpgsql as $$
begin
  raise exception 'ledger lines are never changed or removed' using errcode = 'restrict_violation', constraint = 'ledger_append_only';
end;
$$;
create trigger ledger_append_only before update or delete on ledger_line for each row execute function ledger_is_append_only();
create trigger ledger_append_only_truncate before truncate on ledger_line for each statement execute function ledger_is_append_only();

create function ledger_reversal_is_sound() returns trigger language plpgsql as $$
begin
  if new.reverses is not null and exists (select 1 from ledger_line l where l.id = new.reverses and l.kind = 'reversal') then
    raise exception 'a reversal cannot be reversed' using errcode = 'check_violation', constraint = 'ledger_reversal_of_reversal';
  end if;
  return new;
end;
$$;
create trigger ledger_reversal_sound before insert on ledger_line for each row execute function ledger_reversal_is_sound();

create table fault_call (
  id bigint generated always as identity primary key,
  job_id bigint not null,
  ledger_line_id bigint not null constraint fault_call_line_key unique,
  board_id bigint not null,
  fault text not null,
  constraint fault_call_line_fkey foreign key (ledger_line_id, job_id) references ledger_line (id, job_id),
  constraint fault_call_board_fkey foreign key (board_id, job_id) references board (id, job_id),
  constraint fault_call_filled check (length(trim(fault)) between 1 and 300)
);

create table replacement (
  id bigint generated always as identity primary key,
  job_id bigint not null,
  ledger_line_id bigint not null constraint replacement_line_key unique,
  board_id bigint not null,
  ref text not null,
  source text not null,
  fitted jsonb not null,
  constraint replacement_line_fkey foreign key (ledger_line_id, job_id) references ledger_line (id, job_id),
  constraint replacement_board_fkey foreign key (board_id, job_id) references board (id, job_id),
  constraint replacement_source_known check (source in ('new', 'salvaged'))
);
