-- Which revision of its job an output was made of: what a proof holds for.
alter table output add column revision integer;
