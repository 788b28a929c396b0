-- A coverage rule reaches no further than who made it: the sections of a program; none: the whole college.
alter table coverage_rule add column program_id uuid references program;
alter table coverage_rule add check (program_id is null or course_id is null);
alter table coverage_rule drop constraint coverage_rule_master_id_course_id_set_id_key;
alter table coverage_rule add unique nulls not distinct (master_id, course_id, set_id, program_id);
-- Who else may change a master of no program, which is the college's.
create table master_keeper (
  master_id uuid not null references master on delete cascade,
  person_id uuid not null references person,
  primary key (master_id, person_id)
);
create index on master_keeper (person_id);
-- Since when nobody is to receive it any more.
alter table master add column retired_at timestamptz;
