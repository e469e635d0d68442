-- Items follow from their descriptions: no functions that list fields, places as a level, the landing page by its name.
select set_config('fendrik.step', '0', true);

do $$
declare
  item text;
  suffix text;
begin
  foreach suffix in array array['', '_before'] loop
    foreach item in array array['campaign', 'ad_group', 'keyword', 'negative_keyword', 'text_ad', 'negative_list'] loop
      execute format('drop function if exists item_fields(%I)', item || suffix);
      execute format('drop function if exists published_fields(%I)', item || suffix);
    end loop;
    foreach item in array array['keyword', 'text_ad'] loop
      execute format('alter table %I rename column final_url to landing_page', item || suffix);
      execute format($f$update %I set live = (live - 'finalUrl') || jsonb_build_object('landingPage', nullif(live->>'finalUrl', '')) where live ? 'finalUrl'$f$, item || suffix);
    end loop;
    execute format('alter table %I alter column landing_page drop not null', 'text_ad' || suffix);
    execute format($f$update %I set landing_page = null where landing_page = ''$f$, 'text_ad' || suffix);
  end loop;
end $$;

update live_difference set
  agreed = case when agreed ? 'finalUrl' then (agreed - 'finalUrl') || jsonb_build_object('landingPage', nullif(agreed->>'finalUrl', '')) else agreed end,
  theirs = case when theirs ? 'finalUrl' then (theirs - 'finalUrl') || jsonb_build_object('landingPage', nullif(theirs->>'finalUrl', '')) else theirs end
where agreed ? 'finalUrl' or theirs ? 'finalUrl';
update publish_item set sent = (sent - 'finalUrl') || jsonb_build_object('landingPage', nullif(sent->>'finalUrl', '')) where sent ? 'finalUrl';

-- Where a negative stands is a level, which follows from its parents.
alter table negative_keyword
  add column level smallint not null generated always as (case when list_id is not null then 4 when ad_group_id is not null then 3 when campaign_id is not null then 2 else 1 end) stored,
  drop constraint negative_keyword_place,
  add constraint negative_keyword_place check (
    (campaign_id is not null and ad_group_id is null and list_id is null) or (campaign_id is not null and ad_group_id is not null and list_id is null)
    or (list_id is not null and campaign_id is null and ad_group_id is null));
alter table negative_keyword_before add column level smallint;

-- Staged rows are read again from the kept file; their tables are made from the descriptions.
drop table intake_row, intake_campaign, intake_ad_group, intake_list;
truncate intake_verdict;

-- Columns of lists are known by their names.
create temp table former (field int, name text) on commit drop;
insert into former
  select o - 1, n from unnest(array['', 'campaign', 'dailyBudget', 'startDate', 'endDate', 'networks', 'adGroup', 'adGroup.maxCpc', 'keyword', 'negativeKeyword',
    'matchType', 'maxCpc', 'state', 'landingPage', 'headlines.1', 'headlines.2', 'headlines.3', 'descriptions.1', 'descriptions.2', 'displayPath.1',
    'displayPath.2', 'devicePreference', 'item', 'action', 'negativeList', 'labels', 'headlines.4', 'headlines.5', 'headlines.6', 'headlines.7', 'headlines.8',
    'headlines.9', 'headlines.10', 'headlines.11', 'headlines.12', 'headlines.13', 'headlines.14', 'headlines.15', 'descriptions.3', 'descriptions.4']) with ordinality as t(n, o);
update intake i set columns = array(select coalesce(f.name, '') from unnest(i.fields) with ordinality as u(field, place) left join former f on f.field = u.field order by u.place);
update intake_mapping i set columns = array(select coalesce(f.name, '') from unnest(i.fields) with ordinality as u(field, place) left join former f on f.field = u.field order by u.place);

-- Saved views name kinds and fields as the descriptions do.
update saved_view set body = replace(replace(replace(replace(replace(replace(body::text,
    '"field": "finalUrl"', '"field": "landingPage"'), '"field": "device"', '"field": "devicePreference"'), '"field": "label"', '"field": "labels"'),
    '"sort": "finalUrl"', '"sort": "landingPage"'), '"sort": "device"', '"sort": "devicePreference"'), '"finalUrl"', '"landingPage"')::jsonb;
update saved_view set body = jsonb_set(body #- '{request,view}', '{request,kind}', coalesce(
  ('{"campaigns": "campaign", "adGroups": "adGroup", "keywords": "keyword", "negatives": "negativeKeyword", "ads": "textAd", "lists": "negativeList"}'::jsonb) -> (body #>> '{request,view}'), 'null'))
  where body #> '{request,view}' is not null;

-- What is found is found anew, under the names that fields have now.
delete from finding;
delete from check_run;
