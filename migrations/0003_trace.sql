-- Tracing facts are lines of the ledger; the board they make is kept as a version.
alter table ledger_line drop constraint ledger_kind_known;
alter table ledger_line add constraint ledger_kind_known check (kind in ('reading', 'finding', 'isolation', 'discharge-proof',
  'recharged', 'action', 'override', 'fault', 'check-skipped', 'step-closed', 'replacement', 'safety-test', 'trace', 'reversal'));
alter table ledger_line drop constraint ledger_board_where_needed;
alter table ledger_line add constraint ledger_board_where_needed
  check (kind not in ('reading', 'discharge-proof', 'fault', 'replacement', 'trace') or board_id is not null);
alter table board_version drop constraint board_version_origin_known;
alter table board_version add constraint board_version_origin_known
  check (origin in ('typical', 'netlist', 'json', 'copy', 'empty', 'edit', 'trace'));

-- Photographs of a board's two sides, as the server re-encoded them; marks are points on them.
create table photo (
  id bigint generated always as identity primary key,
  board_id bigint not null constraint photo_board_fkey references board (id),
  side text not null,
  width integer not null,
  height integer not null,
  image bytea not null,
  created_at timestamptz not null,
  constraint photo_side_known check (side in ('front', 'back')),
  constraint photo_size check (width between 1 and 8000 and height between 1 and 8000),
  constraint photo_bytes check (octet_length(image) between 1 and 20000000)
);
create index photo_by_board on photo (board_id, side, id desc);

create table photo_marks (
  board_id bigint primary key constraint photo_marks_board_fkey references board (id),
  marks jsonb not null,
  updated_at timestamptz not null,
  constraint photo_marks_object check (jsonb_typeof(marks) = 'object')
);
