-- What an item asks for, and what must be done before it opens.
alter table item add column opening jsonb not null default '{}';
