-- A job that was brought in from a file: what its lines up to this number say of isolation and discharge was so elsewhere.
alter table job add column brought_in integer not null default 0;
alter table job add constraint job_brought_in_counts check (brought_in >= 0 and brought_in <= last_seq);
