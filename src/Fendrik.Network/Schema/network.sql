create table if not exists account (
  id text primary key,
  network text not null,
  currency text not null,
  time_zone text not null,
  seed bigint not null,
  now timestamptz not null,
  started_at timestamptz not null
);

create table if not exists item (
  account_id text not null references account on delete cascade,
  kind smallint not null,
  item_id bigint not null,
  item jsonb not null,
  review smallint not null,
  review_reason text,
  review_due timestamptz,
  primary key (account_id, kind, item_id)
);
create index if not exists item_review_due on item (account_id, review_due) where review_due is not null;

-- A batch that was carried out, with its answers: asked again under the same key, it is answered and not done again.
create table if not exists batch (
  account_id text not null references account on delete cascade,
  key text not null,
  answers jsonb not null,
  primary key (account_id, key)
);

create table if not exists performance (
  account_id text not null references account on delete cascade,
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
);
create index if not exists performance_day on performance (account_id, day);

-- What was searched for, by day.
create table if not exists search_term (
  account_id text not null references account on delete cascade,
  day date not null,
  term text not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  impressions bigint not null,
  clicks bigint not null,
  cost numeric(14,3) not null,
  conversions numeric(14,3) not null,
  value numeric(14,3) not null
);
create index if not exists search_term_day on search_term (account_id, day);

create table if not exists fault (
  id bigint generated always as identity primary key,
  account_id text not null,
  kind text not null,
  times integer not null,
  milliseconds integer not null,
  wording text
);

-- What has been mended in a database that was made before.
create table if not exists mended (version integer primary key);
drop trigger if exists note_insert on item;
drop trigger if exists note_delete on item;
drop trigger if exists note_update on item;
do $$
begin
  if not exists (select from mended where version = 1) then
    update item set item = (item - 'finalUrl') || jsonb_build_object('landingPage', nullif(item->>'finalUrl', '')) where item ? 'finalUrl';
    insert into mended values (1);
  end if;
end $$;

-- What is in a campaign, an ad group or a list goes with it.
create index if not exists item_campaign on item (account_id, ((item->>'campaignId')::bigint)) where item->>'campaignId' is not null;
create index if not exists item_ad_group on item (account_id, ((item->>'adGroupId')::bigint)) where item->>'adGroupId' is not null;
create index if not exists item_list on item (account_id, ((item->>'listId')::bigint)) where item->>'listId' is not null;

-- Whoever writes items holds their account's row; asking for it again at each item took as long as writing it.
alter table item drop constraint if exists item_account_id_fkey;

-- Reviews are told in the order in which they were said, to whoever asks with the number of the last one heard.
create sequence if not exists review_number;
alter table item add column if not exists review_number bigint;
create unique index if not exists item_review_number on item (account_id, review_number) where review_number is not null;
do $$
begin
  if not exists (select from mended where version = 2) then
    update item set review_number = nextval('review_number') where review <> 0;
    insert into mended values (2);
  end if;
end $$;

-- Every item has the number of its last change, and one that is gone keeps the number of its going: whoever sends a change can
-- say which version it was made on, and what changed is read in the order of the numbers.
create sequence if not exists item_version;
alter table item add column if not exists version bigint not null default 0;
create table if not exists gone_item (
  account_id text not null,
  kind smallint not null,
  item_id bigint not null,
  version bigint not null,
  primary key (account_id, kind, item_id)
);
alter table batch alter column answers drop not null;
do $$
begin
  if not exists (select from mended where version = 3) then
    if to_regclass('item_change') is not null then
      update item i set version = c.last from (select account_id, kind, item_id, max(id) as last from item_change group by 1, 2, 3) c
        where (c.account_id, c.kind, c.item_id) = (i.account_id, i.kind, i.item_id);
      insert into gone_item select c.account_id, c.kind, c.item_id, max(c.id) from item_change c
        where not exists (select from item i where (i.account_id, i.kind, i.item_id) = (c.account_id, c.kind, c.item_id)) group by 1, 2, 3;
      perform setval('item_version', greatest(1, (select max(id) from item_change)));
      drop table item_change;
    end if;
    update item set version = nextval('item_version') where version = 0;
    update batch b set answers = (select jsonb_agg((a - 'accepted') || jsonb_build_object('verdict', case when (a->>'accepted')::boolean then 1 else 2 end) order by place)
      from jsonb_array_elements(b.answers) with ordinality as t(a, place)) where jsonb_path_exists(b.answers, '$[0].accepted');
    insert into mended values (3);
  end if;
end $$;
create index if not exists item_account_version on item (account_id, version);
create index if not exists gone_item_account_version on gone_item (account_id, version);

-- What an item was before it was changed or went, so that a search of the past is answered by the account of then.
alter table item add column if not exists since timestamptz not null default '-infinity';
create table if not exists item_was (
  account_id text not null,
  kind smallint not null,
  item_id bigint not null,
  item jsonb not null,
  review smallint not null,
  since timestamptz not null,
  until timestamptz not null
);
create index if not exists item_was_until on item_was (account_id, until);

-- One row for each ad shown, for 90 days: enough to hold the network to it. Everything else of a search is made again from its name.
create table if not exists shown (
  account_id text not null,
  day date not null,
  search bigint not null,
  hour smallint not null,
  at bigint not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  ad_id bigint not null,
  device smallint not null,
  site smallint not null,
  place smallint not null,
  is_top boolean not null,
  price bigint not null,
  quality smallint not null,
  set_by integer not null,
  click smallint not null,
  from_place smallint not null,
  age smallint not null,
  gender smallint not null,
  expected double precision not null,
  fit double precision not null,
  term text not null
);
create index if not exists shown_day on shown (account_id, day);
create index if not exists shown_search on shown (account_id, search);

-- What came of clicks that were paid: how each visit ended, and when the network hears of those that got in touch.
create table if not exists visit (
  account_id text not null,
  day date not null,
  hour smallint not null,
  search bigint not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  ad_id bigint not null,
  device smallint not null,
  site smallint not null,
  term text not null,
  outcome smallint not null,
  way smallint,
  at timestamptz not null,
  seconds integer not null,
  value numeric(14,3) not null,
  told timestamptz not null
);
create index if not exists visit_day on visit (account_id, day);
create index if not exists visit_told on visit (account_id, told) where outcome = 12;
create index if not exists visit_search on visit (account_id, search);

create table if not exists campaign_hour (
  account_id text not null,
  hour bigint not null,
  campaign_id bigint not null,
  spent_before numeric(14,3) not null,
  rate double precision not null,
  stopped_at integer,
  spent numeric(14,3) not null,
  primary key (account_id, hour, campaign_id)
);

create table if not exists quality_day (
  account_id text not null,
  keyword_id bigint not null,
  day date not null,
  made double precision not null,
  expected double precision not null,
  text_sum double precision not null,
  shown double precision not null,
  score smallint not null,
  likelihood numeric(9,8) not null,
  text_fit numeric(9,8) not null,
  page_fit numeric(9,8) not null,
  primary key (account_id, keyword_id, day)
);

-- How the account stood where it could have shown, and who showed with it. Hours come in pieces; they are added up when read.
create table if not exists standing (
  account_id text not null,
  day date not null,
  hour smallint not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  impressions bigint not null,
  top bigint not null,
  first bigint not null,
  places bigint not null,
  lost_to_rank bigint not null,
  lost_to_budget bigint not null
);
create index if not exists standing_day on standing (account_id, day);
create table if not exists rival_day (
  account_id text not null,
  day date not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  rival text not null,
  shown_with bigint not null,
  above_us bigint not null
);
create index if not exists rival_day_day on rival_day (account_id, day);

-- Which world a day was played in; a search of a day of another world cannot be made again.
create table if not exists world_day (
  account_id text not null,
  day date not null,
  version text not null,
  primary key (account_id, day, version)
);

-- Ad groups of trades that the world does not know, as the network met them.
create table if not exists brought_trade (
  account_id text not null,
  number integer not null,
  ad_group_id bigint not null,
  keywords text[] not null,
  began bigint not null,
  primary key (account_id, number)
);

-- Who pays an account, from when on. Without a payer nothing of it serves.
create table if not exists account_payer (
  account_id text not null,
  since timestamptz not null,
  payer text,
  version bigint not null default nextval('item_version')
);
create index if not exists account_payer_since on account_payer (account_id, since, version);
do $$
begin
  if not exists (select from mended where version = 4) then
    insert into account_payer (account_id, since, payer) select id, started_at, 'Whoever paid before' from account;
    insert into mended values (4);
  end if;
end $$;

-- What showed beside ads, and what came of these. Days come in pieces; they are added up when read. Expected clicks are in millionths.
create table if not exists extension_day (
  account_id text not null,
  day date not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  kind smallint not null,
  extension_id bigint not null,
  impressions bigint not null,
  clicks bigint not null,
  own_clicks bigint not null,
  cost bigint not null,
  expected bigint not null
);
create index if not exists extension_day_day on extension_day (account_id, day);
alter table visit add column if not exists beside_kinds smallint[] not null default '{}';
alter table visit add column if not exists beside_ids bigint[] not null default '{}';

-- Callouts and sitelinks have a state since then; one that nobody had said was running.
do $$
begin
  if not exists (select from mended where version = 5) then
    update item set item = item || '{"state": 1}' where kind in (8, 9) and not item ? 'state';
    insert into mended values (5);
  end if;
end $$;

-- Which ads showed, responsive ones with the lines that showed together, and what came of these; days come in pieces here as well.
create table if not exists combination_day (
  account_id text not null,
  day date not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  ad_id bigint not null,
  headlines text[] not null,
  descriptions text[] not null,
  impressions bigint not null,
  clicks bigint not null,
  cost bigint not null,
  expected bigint not null
);
create index if not exists combination_day_day on combination_day (account_id, day);
alter table visit add column if not exists headlines text[] not null default '{}';
alter table visit add column if not exists descriptions text[] not null default '{}';

-- What was refused can be read again, once, by somebody who takes more time.
alter table item add column if not exists appealed boolean not null default false;

-- What the day's budget was, for those who ask how it lasted.
alter table campaign_hour add column if not exists budget numeric(14,3);

-- Campaigns say how their ads take turns since then; they took turns evenly.
do $$
begin
  if not exists (select from mended where version = 6) then
    update item set item = item || '{"rotation": 1}' where kind = 1 and not item ? 'rotation';
    insert into mended values (6);
  end if;
end $$;

-- Pages of content sites and audiences, and what came of these; days come in pieces here as well.
create table if not exists reached_day (
  account_id text not null,
  day date not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  reached_by smallint not null,
  name text not null,
  impressions bigint not null,
  clicks bigint not null,
  cost bigint not null,
  expected bigint not null
);
create index if not exists reached_day_day on reached_day (account_id, day);
alter table visit add column if not exists reached_by smallint[] not null default '{}';
alter table visit add column if not exists reached text[] not null default '{}';

-- By what campaigns bid in an hour, and what strategies bid for clicks.
alter table campaign_hour add column if not exists strategy smallint not null default 1;
alter table campaign_hour add column if not exists level double precision;
alter table campaign_hour add column if not exists units double precision not null default 0;
alter table visit add column if not exists strategy smallint;
alter table visit add column if not exists bid bigint;
alter table visit add column if not exists units double precision;
do $$
begin
  if not exists (select from mended where version = 7) then
    update item set item = item || '{"strategy": 1}' where kind = 1 and not item ? 'strategy';
    insert into mended values (7);
  end if;
end $$;

-- What the actions of accounts counted of visits; 0 is the action of an account that has none yet.
create table if not exists conversion (
  account_id text not null,
  day date not null,
  hour smallint not null,
  search bigint not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  ad_id bigint not null,
  device smallint not null,
  site smallint not null,
  term text not null,
  clicked_at timestamptz not null,
  action_id bigint not null,
  at timestamptz not null,
  told timestamptz not null,
  value numeric(14,3) not null,
  counts boolean not null,
  steers boolean not null
);
create index if not exists conversion_day on conversion (account_id, day);
create index if not exists conversion_told on conversion (account_id, told);

-- Calls as the carrier saw them: those of ads, and those of the site by the number that a visit was shown.
create table if not exists phone_call (
  account_id text not null,
  day date not null,
  hour smallint not null,
  search bigint not null,
  campaign_id bigint not null,
  ad_group_id bigint not null,
  keyword_id bigint not null,
  ad_id bigint not null,
  device smallint not null,
  site smallint not null,
  term text not null,
  clicked_at timestamptz not null,
  at timestamptz not null,
  rang integer not null,
  talked integer not null,
  call_end smallint not null,
  from_ad boolean not null,
  from_place smallint not null,
  price bigint not null
);
create index if not exists phone_call_at on phone_call (account_id, at);
do $$
begin
  if not exists (select from mended where version = 8) then
    insert into conversion select v.account_id, v.day, v.hour, v.search, v.campaign_id, v.ad_group_id, v.keyword_id, v.ad_id, v.device, v.site, v.term,
      coalesce((select to_timestamp(s.at) from shown s where s.account_id = v.account_id and s.search = v.search limit 1), v.at), 0, v.at, v.told, v.value, true, true
      from visit v where v.outcome = 12;
    insert into mended values (8);
  end if;
end $$;

-- What was told from outside has the reference of the books; what was taken back counts no more.
alter table conversion add column if not exists reference text;
alter table conversion add column if not exists taken_back boolean not null default false;
create index if not exists conversion_search on conversion (account_id, search);
create unique index if not exists conversion_reference on conversion (account_id, action_id, search, reference) where reference is not null;

-- Numbers that the carrier forwards. One that was given back rests before somebody else gets it.
create table if not exists carrier_number (
  account_id text not null,
  number text not null,
  reach smallint not null,
  area text,
  forwards_to text not null,
  pool smallint not null,
  campaign_id bigint,
  since timestamptz not null,
  until timestamptz
);
create unique index if not exists carrier_number_held on carrier_number (number) where until is null;
create index if not exists carrier_number_account on carrier_number (account_id, since);
create index if not exists shown_clicked on shown (account_id, at) where click in (1, 2);

-- What a tool calls an account that was there before the tool: both names open it.
create table if not exists account_link (
  alias text primary key,
  account_id text not null references account on delete cascade
);
