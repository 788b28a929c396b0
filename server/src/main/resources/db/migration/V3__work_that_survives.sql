-- Who works on a section just now: a later worker takes over, and the earlier one can write no more.
alter table section add column busy_token uuid;
-- The state of the platform's item that a step was planned on, and that it left.
alter table delivery_step add column seen_revision text;
alter table delivery_step add column left_revision text;
create index on delivery_step (line_id) where sent and not recorded;
