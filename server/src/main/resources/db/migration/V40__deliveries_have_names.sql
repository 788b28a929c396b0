-- What somebody calls a delivery, to find it again.
alter table delivery add column name text not null default '' check (length(name) <= 200);
