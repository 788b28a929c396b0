-- Saved choices of sections: by hand, or by what is said of them, which stays current.
create table section_set (
  id uuid primary key,
  name text not null unique,
  filter jsonb,
  made_by uuid not null references person,
  made_at timestamptz not null
);
create table section_set_member (
  set_id uuid not null references section_set on delete cascade,
  section_id uuid not null references section,
  primary key (set_id, section_id)
);
create index on section_set_member (section_id);
-- Which sections ought to hold a master, at which version: the newest unless one is pinned.
alter table coverage_rule add column set_id uuid references section_set;
alter table coverage_rule add column pinned int check (pinned > 0);
alter table coverage_rule add check (course_id is null or set_id is null);
alter table coverage_rule drop constraint coverage_rule_master_id_course_id_key;
alter table coverage_rule add unique nulls not distinct (master_id, course_id, set_id);
create index on coverage_rule (set_id) where set_id is not null;
-- A platform that queues what it is sent has accepted it before it is there.
alter table delivery_line drop constraint delivery_line_state_check;
alter table delivery_line add constraint delivery_line_state_check check (state in
  ('TO_PLAN', 'PLANNED', 'WAITING', 'RUNNING', 'TRYING_AGAIN', 'ACCEPTED', 'NEEDS_PERSON', 'NOT_YET', 'STOPPED', 'DONE'));
-- Several masters as one order: deliveries to the same sections, one after the other in each of them.
alter table delivery add column order_id uuid;
alter table delivery add column place int not null default 0;
create unique index on delivery (order_id, place);
alter table delivery_line drop constraint delivery_line_waits_for_check;
alter table delivery_line add constraint delivery_line_waits_for_check check (waits_for in ('SHELL', 'EMPTY', 'TIME', 'BEFORE'));
alter domain step_reason drop constraint step_reason_check;
alter domain step_reason add constraint step_reason_check check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK',
   'DATES_LEFT', 'EMPTIED', 'TAKEN_BACK', 'CLEARED', 'NOT_CLEARED', 'ALIKE_EARLIER_TERM', 'ALIKE_DOUBTFUL', 'PUT_BACK', 'ACCEPTED_HERE',
   'SUPPLIED'));
-- When a shell was last looked at for what was changed there, in which state it was, and what stood there of the section's own.
alter table section add column looked_at timestamptz;
alter table section add column state_tag text;
create index on section (looked_at nulls first) where shell is not null;
create table own_item (
  section_id uuid not null references section on delete cascade,
  platform_item text not null,
  kind text not null,
  title text not null,
  changed_by text not null,
  changed_at text not null,
  primary key (section_id, platform_item)
);
-- Whether a second person's word is needed: from so many sections, or where anything is removed; and who asked for it.
create table second_word (
  id int primary key default 1 check (id = 1),
  from_sections int check (from_sections > 0),
  removes boolean not null default false
);
insert into second_word default values;
alter table delivery add column asked_by uuid references person;
alter table delivery add column asked_at timestamptz;
alter table delivery add check ((asked_by is null) = (asked_at is null));
-- Enrolments, work, grades and posts in a shell before a line was carried out and after.
alter table delivery_line add column counted_before int[];
alter table delivery_line add column counted_after int[];
