using Fendrik.Data.Items;
using Fendrik.Data.Model;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fendrik.Data.Migrations;

/// <summary>
/// Which version of an item the network is known to have, and how far a publish was sent. What is on the network is read once more
/// from its beginning, since the versions of what is live are not known yet.
/// </summary>
[DbContext(typeof(FendrikContext))]
[Migration("20261126050000_SurePublishing")]
internal sealed class SurePublishing : Migration
{
    private static readonly string[] Tables =
    [
        "account_item",
        "campaign",
        "ad_group",
        "keyword",
        "negative_keyword",
        "text_ad",
        "negative_list",
        "callout",
        "sitelink",
    ];

    protected override void Up(MigrationBuilder migrationBuilder)
    {
        foreach (var table in Tables)
        {
            migrationBuilder.Sql(ItemShape.AddColumn(table, "if not exists live_version bigint"));
        }

        // Of what was sent before, nobody wrote down how far it went: all of it may have been.
        migrationBuilder.Sql(
            """
            alter table publish add column round integer not null default 0, add column sent_up_to integer not null default 0,
              add column changed_since integer not null default 0, add column left_out integer not null default 0;
            update publish set sent_up_to = total where state <> 2;
            alter table live_difference add column version bigint not null default 0;
            alter table job add column attempts integer not null default 0;
            create index job_subject on job (kind, subject_id);
            alter table check_due add column id bigint generated always as identity;
            update account set network_sequence = 0;
            """
        );
    }
}
