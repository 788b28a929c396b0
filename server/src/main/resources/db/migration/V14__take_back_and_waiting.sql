-- What a shell is to be like when a delivery arrives, when it begins, how many of its lines run at once, and which
-- delivery it takes back.
alter table delivery add column onto text not null default 'UP_TO_DATE' check (onto in ('UP_TO_DATE', 'CLEAN', 'IF_EMPTY'));
alter table delivery add column begins_at timestamptz;
alter table delivery add column at_once int check (at_once > 0);
alter table delivery add column takes_back uuid references delivery;
create index on delivery (takes_back) where takes_back is not null;
alter table delivery drop constraint delivery_state_check;
alter table delivery add constraint delivery_state_check
  check (state in ('PLANNING', 'PLANNED', 'SCHEDULED', 'RUNNING', 'STOPPED', 'DONE'));
alter table delivery_line drop constraint delivery_line_state_check;
alter table delivery_line add constraint delivery_line_state_check check (state in
  ('TO_PLAN', 'PLANNED', 'WAITING', 'RUNNING', 'TRYING_AGAIN', 'NEEDS_PERSON', 'NOT_YET', 'STOPPED', 'DONE'));
alter table delivery_line add column waits_for text check (waits_for in ('SHELL', 'EMPTY', 'TIME'));
create index on delivery_line (waits_for) where state = 'NOT_YET';
-- Where the section stood before a line was carried out; no version: it had never received the master.
alter table delivery_line add column stood boolean not null default false;
alter table delivery_line add column stood_at uuid references version;
alter table delivery_line add column stood_expected int;
alter table delivery_line add column stood_withheld int;
alter domain step_reason drop constraint step_reason_check;
alter domain step_reason add constraint step_reason_check check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK',
   'DATES_LEFT', 'EMPTIED', 'TAKEN_BACK', 'CLEARED', 'NOT_CLEARED', 'ALIKE_EARLIER_TERM', 'ALIKE_DOUBTFUL', 'PUT_BACK', 'ACCEPTED_HERE'));
-- What speaks for a twin that was found by what it says.
alter table delivery_step add column evidence jsonb;
alter table receipt drop constraint receipt_how_check;
alter table receipt add constraint receipt_how_check
  check (how in ('ADDED', 'UPDATED', 'ADOPTED', 'KEPT', 'RETIRED', 'GIVEN_BACK'));
create index on receipt (delivery_id);
-- What a shell held before a line changed or removed anything there; its texts are kept with all others.
create table restore_point (
  line_id uuid primary key references delivery_line on delete cascade,
  section_id uuid not null references section,
  taken_at timestamptz not null,
  keep_until timestamptz not null,
  items int not null,
  reading bytea not null
);
alter table restore_point alter column reading set storage external;
create index on restore_point (section_id, taken_at);
create index on restore_point (keep_until);
-- What a section changed and what was accepted there for good; in which aspects, and who changed it.
alter table delivery drop constraint delivery_clash_check;
alter table delivery add constraint delivery_clash_check check (clash in ('KEEP_SECTION', 'TAKE_VERSION', 'PUT_BACK'));
alter table holding add column accepted int not null default 0;
alter table holding add column changed_by text;
alter table holding add column changed_at text;
create table acceptance (
  id bigint generated always as identity primary key,
  section_id uuid not null references section,
  master_id uuid not null references master,
  item_key text not null,
  aspects int not null,
  shown bytea not null check (octet_length(shown) = 192),
  person_id uuid not null references person,
  at timestamptz not null
);
create trigger acceptance_only_added before update or delete on acceptance
  for each row execute function only_added();
create trigger acceptance_not_emptied before truncate on acceptance execute function only_added();
-- The ledger is looked through by day; receipts are only added, so their days rise with their places.
create index on receipt using brin (at);
-- Who is told by mail when a delivery has ended, and why it came; mail that is to be sent, or was.
alter table delivery add column tell text not null default 'NOBODY' check (tell in ('NOBODY', 'SENDER', 'INSTRUCTORS'));
alter table delivery add column note text not null default '';
create table mail (
  id uuid primary key,
  delivery_id uuid not null references delivery on delete cascade,
  section_id uuid references section,
  person_id uuid not null references person,
  done int not null default 0,
  address text not null,
  subject text not null,
  body text not null,
  made_at timestamptz not null,
  sent_at timestamptz,
  problem text,
  unique nulls not distinct (delivery_id, section_id, person_id, done)
);
create index on mail (made_at) where sent_at is null and problem is null;
