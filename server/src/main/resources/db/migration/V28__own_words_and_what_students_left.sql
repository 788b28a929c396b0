-- What a section and the master changed at different places is merged by itself.
alter domain step_reason drop constraint step_reason_check;
alter domain step_reason add constraint step_reason_check check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'MERGED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK', 'HIDDEN_INSTEAD', 'LEFT_WITH_WORK',
   'DATES_LEFT', 'EMPTIED', 'TAKEN_BACK', 'CLEARED', 'NOT_CLEARED', 'ALIKE_EARLIER_TERM', 'ALIKE_DOUBTFUL', 'PUT_BACK', 'ACCEPTED_HERE',
   'SUPPLIED', 'MEETS', 'NO_PLACE', 'NO_WEEK', 'WEEKS_ADDED', 'EDITED'));
-- A decision to take both in all sections is a rule: it names no text.
alter table delivery_decision drop constraint delivery_decision_check;
alter table delivery_decision add check (together is null or take = 'TOGETHER');
-- What students left something on waits for a person, who decides one by one or for all.
alter table delivery_decision drop constraint delivery_decision_take_check;
alter table delivery_decision add constraint delivery_decision_take_check
  check (take in ('SECTION', 'VERSION', 'TOGETHER', 'ADOPT', 'ADD', 'LEAVE', 'CHANGE_GRADING', 'HIDE'));
alter table delivery_decision add column of_work boolean not null default false;
alter table delivery_decision alter column of_work drop default;
-- What items of the edition that a master is built on are called in the master, where that differs.
create table master_edition_key (
  master_id uuid not null references master on delete cascade,
  edition_key text not null,
  item_key text not null,
  primary key (master_id, edition_key)
);
-- A step of a draft from which somebody else went on is not undone any more, and bars none before it.
alter table draft_step add column stays boolean not null default false;
