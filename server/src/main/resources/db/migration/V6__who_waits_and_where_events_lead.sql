-- Lines that wait for a person are few among many, and asked for by every look at the coverage.
create index on delivery_line (section_id) where state = 'NEEDS_PERSON';
create index on delivery_line (section_id, delivery_id);

-- Where what an event tells of is looked at, within the application.
alter table event add column leads_to text;
