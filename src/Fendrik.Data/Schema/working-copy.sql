-- The working copy: uniqueness, pending changes, published fields, and history by before-tables.

-- One index serves three ends: no twins among rows that are not removed, the order within a parent, the foreign key.
create unique index campaign_identity on campaign (account_id, name_key, (case when removed then id else 0 end));
create unique index ad_group_identity on ad_group (campaign_id, name_key, (case when removed then id else 0 end));
create unique index keyword_identity on keyword (ad_group_id, text_key, match_type, (case when removed then id else 0 end));
create unique index negative_keyword_identity on negative_keyword
  (campaign_id, (coalesce(ad_group_id, 0)), text_key, match_type, (case when removed then id else 0 end));
create unique index text_ad_identity on text_ad (ad_group_id, content_key, (case when removed then id else 0 end));

-- What differs from the live copy is found without looking at what does not.
create index campaign_pending on campaign (account_id, id)
  where (is_live and (removed or live is not null)) or (not is_live and not removed);
create index ad_group_pending on ad_group (account_id, id)
  where (is_live and (removed or live is not null)) or (not is_live and not removed);
create index keyword_pending on keyword (account_id, id)
  where (is_live and (removed or live is not null)) or (not is_live and not removed);
create index negative_keyword_pending on negative_keyword (account_id, id)
  where (is_live and (removed or live is not null)) or (not is_live and not removed);
create index text_ad_pending on text_ad (account_id, id)
  where (is_live and (removed or live is not null)) or (not is_live and not removed);

-- Rows as they were before a step. Same columns as the row itself, so that undo is one UPDATE from here.
-- The unique indexes hold that a step writes a row once: with two images, which is the one before?
create table campaign_before (step_id bigint not null, like campaign);
create table ad_group_before (step_id bigint not null, like ad_group);
create table keyword_before (step_id bigint not null, like keyword);
create table negative_keyword_before (step_id bigint not null, like negative_keyword);
create table text_ad_before (step_id bigint not null, like text_ad);
create unique index on campaign_before (id, step_id);
create unique index on ad_group_before (id, step_id);
create unique index on keyword_before (id, step_id);
create unique index on negative_keyword_before (id, step_id);
create unique index on text_ad_before (id, step_id);
create index on campaign_before using brin (step_id);
create index on ad_group_before using brin (step_id);
create index on keyword_before using brin (step_id);
create index on negative_keyword_before using brin (step_id);
create index on text_ad_before using brin (step_id);

-- The fields that go to the network, as they travel, of a row as it is and of a row as it was.
do $$
declare
  suffix text;
  item record;
begin
  foreach suffix in array array['', '_before'] loop
    for item in select * from (values
      ('campaign', $f$'id', $1.id, 'name', $1.name, 'state', $1.state, 'dailyBudget', trim_scale($1.daily_budget),
        'startDate', $1.start_date, 'endDate', $1.end_date, 'networks', $1.networks$f$),
      ('ad_group', $f$'id', $1.id, 'campaignId', $1.campaign_id, 'name', $1.name, 'state', $1.state,
        'maxCpc', trim_scale($1.max_cpc)$f$),
      ('keyword', $f$'id', $1.id, 'adGroupId', $1.ad_group_id, 'text', $1.text, 'match', $1.match_type,
        'state', $1.state, 'maxCpc', trim_scale($1.max_cpc), 'finalUrl', $1.final_url$f$),
      ('negative_keyword', $f$'id', $1.id, 'campaignId', $1.campaign_id, 'adGroupId', $1.ad_group_id, 'text', $1.text,
        'match', $1.match_type$f$),
      ('text_ad', $f$'id', $1.id, 'adGroupId', $1.ad_group_id, 'state', $1.state, 'headlines', to_jsonb($1.headlines),
        'descriptions', to_jsonb($1.descriptions), 'displayPath', to_jsonb($1.display_path), 'finalUrl', $1.final_url,
        'devicePreference', $1.device_preference$f$)
    ) as kinds(name, fields) loop
      execute format('create function published_fields(%I) returns jsonb language sql immutable as %L',
        item.name || suffix, 'select jsonb_build_object(' || item.fields || ')');
    end loop;
  end loop;
end $$;

-- The step that the transaction belongs to. Nothing writes items without one; "0" is what comes from the network.
create function current_step() returns bigint language plpgsql stable as $$
declare step text := current_setting('fendrik.step', true);
begin
  if step is null or step = '' then
    raise exception 'Items change only within a step (fendrik.step is not set).';
  end if;
  return step::bigint;
end $$;

create function remember_update() returns trigger language plpgsql as $$
begin
  if current_step() > 0 then
    execute format('insert into %I select $1, o.* from old_rows o', tg_table_name || '_before') using current_step();
  end if;
  return null;
end $$;

create function remember_insert() returns trigger language plpgsql as $$
begin
  insert into step_insertion (step_id, kind, first_id, last_id)
    select current_step(), tg_argv[0]::smallint, min(id), max(id)
    from (select id, id - row_number() over (order by id) as island from new_rows) numbered
    group by island;
  return null;
end $$;

create function refuse_delete() returns trigger language plpgsql as $$
begin
  raise exception 'Rows of % are never deleted; set removed.', tg_table_name;
end $$;

do $$
declare item record;
begin
  for item in select * from (values ('campaign', 1), ('ad_group', 2), ('keyword', 3), ('negative_keyword', 4), ('text_ad', 5)) as kinds(name, kind) loop
    execute format('create trigger remember_update after update on %I referencing old table as old_rows
      for each statement execute function remember_update()', item.name);
    execute format('create trigger remember_insert after insert on %I referencing new table as new_rows
      for each statement execute function remember_insert(%s)', item.name, item.kind);
    execute format('create trigger refuse_delete before delete on %I for each row execute function refuse_delete()', item.name);
  end loop;
end $$;
