-- Until when a tool takes the secret before too, while one is exchanged for another.
alter table tool_connection add column both_until date;
