-- What the workshop has set: one row, or none until somebody does.
create table workshop_setting (
  one boolean primary key default true,
  body jsonb not null,
  changed_at timestamptz not null,
  constraint workshop_setting_once check (one)
);
