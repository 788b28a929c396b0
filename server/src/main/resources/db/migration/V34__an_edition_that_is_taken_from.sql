-- The edition from which was taken last, on which the master is not built yet.
alter table master add column taking_edition_id uuid references edition;
