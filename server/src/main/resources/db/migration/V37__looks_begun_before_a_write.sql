-- When we last learnt ourselves (by writing, or from a person) what credentials stand there:
-- a look that was begun before says nothing of them.
alter table section_tool add column noted_at timestamptz;
