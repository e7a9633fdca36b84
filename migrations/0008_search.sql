-- What is printed on a board, kept beside it so that it is found without reading every board.
create extension if not exists pg_trgm;
alter table board add column printed text generated always as (
  coalesce(content->>'title', '') || ' ' ||
  jsonb_path_query_array(content, '$.parts[*].keys[*] ? (@.key == "mark").text')::text) stored;
create index board_printed on board using gin (printed gin_trgm_ops);
create index unit_named on unit using gin (name gin_trgm_ops);
