-- Shells that are no section's: to try things in, or shared by many. They stand in no term and in no roster.
alter table section add column purpose text not null default 'SECTION' check (purpose in ('SECTION', 'PRACTICE', 'SHARED'));
alter table section add constraint section_of_a_roster_or_a_shell check (purpose = 'SECTION' or (shell is not null and not in_roster and term_id is null));
create index on section (purpose) where purpose <> 'SECTION';
