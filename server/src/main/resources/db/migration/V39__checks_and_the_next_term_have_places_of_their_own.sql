-- What is told of them leads there.
alter table event disable trigger event_only_added;
update event set leads_to = '/checks' where leads_to = '/coverage/checks';
update event set leads_to = '/next-term' where leads_to = '/coverage/next-term';
alter table event enable trigger event_only_added;
