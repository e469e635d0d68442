-- What ads brought, as the network reports it: by hour in month partitions, and rolled up by day for the screens.
create table performance (
  account_id integer not null,
  day date not null,
  hour smallint not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  ad_id bigint not null,
  device smallint not null,
  site smallint not null,
  impressions bigint not null,
  clicks bigint not null,
  cost numeric(14,3) not null,
  conversions numeric(14,3) not null,
  value numeric(14,3) not null
) partition by range (day);
create index on performance (account_id, day);

create table performance_day (
  account_id integer not null,
  day date not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  ad_id bigint not null,
  device smallint not null,
  impressions bigint not null,
  clicks bigint not null,
  cost numeric(14,3) not null,
  conversions numeric(14,3) not null,
  value numeric(14,3) not null
) partition by range (day);
create index on performance_day (account_id, day);

create function ensure_performance_month(a_day date) returns void language plpgsql as $$
declare
  first_day date := date_trunc('month', a_day);
  next_month date := first_day + interval '1 month';
  suffix text := to_char(first_day, 'YYYYMM');
begin
  execute format('create table if not exists performance_%s partition of performance for values from (%L) to (%L)', suffix, first_day, next_month);
  execute format('create table if not exists performance_day_%s partition of performance_day for values from (%L) to (%L)', suffix, first_day, next_month);
end $$;
