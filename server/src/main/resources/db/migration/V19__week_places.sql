-- The section from whose shell a master was made, if it was.
alter table master add column made_from uuid references section on delete set null;
-- Masters that a recipe brings besides its own, as one order.
alter table recipe add column others uuid[] not null default '{}';
-- What becomes of weeks for which a shell has no place.
alter table delivery add column weeks text not null default 'ADD' check (weeks in ('ADD', 'LEAVE_OUT'));
alter domain step_reason drop constraint step_reason_check;
alter domain step_reason add constraint step_reason_check check (value in
  ('EQUAL', 'NEW_IN_VERSION', 'VERSION_MOVED', 'CHANGED_HERE', 'BOTH_MOVED', 'FIXED_PUT_BACK',
   'STARTER_BELONGS_TO_SECTION', 'ALIKE_ADOPTED', 'ALIKE_LEFT', 'ALIKE_ADDED_BESIDE', 'REMOVED_HERE',
   'GONE_FROM_VERSION', 'GONE_BUT_CHANGED_HERE', 'GONE_BUT_HOLDS_OTHERS', 'ALREADY_GONE', 'STUDENT_WORK',
   'DATES_LEFT', 'EMPTIED', 'TAKEN_BACK', 'CLEARED', 'NOT_CLEARED', 'ALIKE_EARLIER_TERM', 'ALIKE_DOUBTFUL', 'PUT_BACK', 'ACCEPTED_HERE',
   'SUPPLIED', 'MEETS', 'NO_PLACE', 'NO_WEEK', 'WEEKS_ADDED'));
