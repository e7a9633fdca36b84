-- Each job stands on a bench; only one unit of a bench may be live at a time.
alter table job add column bench text not null default 'Bench A';
alter table job alter column bench drop default;
alter table job add constraint job_bench_filled check (length(trim(bench)) between 1 and 60);
