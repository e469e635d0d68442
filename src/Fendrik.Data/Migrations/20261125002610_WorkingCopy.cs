using System;
using System.Text.Json;
using Fendrik.Data.Setup;
using Microsoft.EntityFrameworkCore.Migrations;
using Npgsql.EntityFrameworkCore.PostgreSQL.Metadata;

#nullable disable

namespace Fendrik.Data.Migrations
{
    /// <inheritdoc />
    public partial class WorkingCopy : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.CreateTable(
                name: "account",
                columns: table => new
                {
                    id = table
                        .Column<int>(type: "integer", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    name = table.Column<string>(type: "text", nullable: false),
                    currency = table.Column<string>(type: "text", nullable: false),
                    time_zone = table.Column<string>(type: "text", nullable: false),
                    network_id = table.Column<string>(type: "text", nullable: false),
                    live_read_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    network_now = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    reported_to = table.Column<DateOnly>(type: "date", nullable: true),
                    last_step_id = table.Column<long>(type: "bigint", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_account", x => x.id);
                }
            );

            migrationBuilder.CreateTable(
                name: "AspNetRoles",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_name = table.Column<string>(
                        type: "character varying(256)",
                        maxLength: 256,
                        nullable: true
                    ),
                    concurrency_stamp = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_roles", x => x.id);
                }
            );

            migrationBuilder.CreateTable(
                name: "AspNetUsers",
                columns: table => new
                {
                    id = table.Column<string>(type: "text", nullable: false),
                    display_name = table.Column<string>(type: "text", nullable: false),
                    user_name = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_user_name = table.Column<string>(
                        type: "character varying(256)",
                        maxLength: 256,
                        nullable: true
                    ),
                    email = table.Column<string>(type: "character varying(256)", maxLength: 256, nullable: true),
                    normalized_email = table.Column<string>(
                        type: "character varying(256)",
                        maxLength: 256,
                        nullable: true
                    ),
                    email_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    password_hash = table.Column<string>(type: "text", nullable: true),
                    security_stamp = table.Column<string>(type: "text", nullable: true),
                    concurrency_stamp = table.Column<string>(type: "text", nullable: true),
                    phone_number = table.Column<string>(type: "text", nullable: true),
                    phone_number_confirmed = table.Column<bool>(type: "boolean", nullable: false),
                    two_factor_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    lockout_end = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                    lockout_enabled = table.Column<bool>(type: "boolean", nullable: false),
                    access_failed_count = table.Column<int>(type: "integer", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_users", x => x.id);
                }
            );

            migrationBuilder.CreateTable(
                name: "check_run",
                columns: table => new
                {
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    step_id = table.Column<long>(type: "bigint", nullable: false),
                    blockers = table.Column<int>(type: "integer", nullable: false),
                    cautions = table.Column<int>(type: "integer", nullable: false),
                    hints = table.Column<int>(type: "integer", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_check_run", x => x.account_id);
                }
            );

            migrationBuilder.CreateTable(
                name: "data_protection_keys",
                columns: table => new
                {
                    id = table
                        .Column<int>(type: "integer", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    friendly_name = table.Column<string>(type: "text", nullable: true),
                    xml = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_data_protection_keys", x => x.id);
                }
            );

            migrationBuilder.CreateTable(
                name: "intake",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    file_name = table.Column<string>(type: "text", nullable: false),
                    bytes = table.Column<long>(type: "bigint", nullable: false),
                    state = table.Column<short>(type: "smallint", nullable: false),
                    problem = table.Column<string>(type: "text", nullable: true),
                    sheet_name = table.Column<string>(type: "text", nullable: true),
                    sample = table.Column<string>(type: "jsonb", nullable: false),
                    has_header = table.Column<bool>(type: "boolean", nullable: false),
                    fields = table.Column<int[]>(type: "integer[]", nullable: false),
                    fields_chosen = table.Column<bool>(type: "boolean", nullable: false),
                    default_campaign = table.Column<string>(type: "text", nullable: true),
                    default_ad_group = table.Column<string>(type: "text", nullable: true),
                    bare_match = table.Column<short>(type: "smallint", nullable: false),
                    negative_match = table.Column<short>(type: "smallint", nullable: false),
                    rows_read = table.Column<long>(type: "bigint", nullable: false),
                    judged_at_step = table.Column<long>(type: "bigint", nullable: false),
                    step_id = table.Column<long>(type: "bigint", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake", x => x.id);
                }
            );

            migrationBuilder.CreateTable(
                name: "intake_file_part",
                columns: table => new
                {
                    intake_id = table.Column<long>(type: "bigint", nullable: false),
                    part = table.Column<int>(type: "integer", nullable: false),
                    bytes = table.Column<byte[]>(type: "bytea", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_intake_file_part", x => new { x.intake_id, x.part });
                }
            );

            migrationBuilder.CreateTable(
                name: "job",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<string>(type: "text", nullable: false),
                    kind = table.Column<string>(type: "text", nullable: false),
                    subject_id = table.Column<long>(type: "bigint", nullable: false),
                    state = table.Column<short>(type: "smallint", nullable: false),
                    done = table.Column<long>(type: "bigint", nullable: false),
                    total = table.Column<long>(type: "bigint", nullable: true),
                    message = table.Column<string>(type: "text", nullable: true),
                    cancel_requested = table.Column<bool>(type: "boolean", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    ended_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_job", x => x.id);
                }
            );

            migrationBuilder.CreateTable(
                name: "publish",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    state = table.Column<short>(type: "smallint", nullable: false),
                    problem = table.Column<string>(type: "text", nullable: true),
                    total = table.Column<int>(type: "integer", nullable: false),
                    accepted = table.Column<int>(type: "integer", nullable: false),
                    refused = table.Column<int>(type: "integer", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_publish", x => x.id);
                }
            );

            migrationBuilder.CreateTable(
                name: "publish_item",
                columns: table => new
                {
                    publish_id = table.Column<long>(type: "bigint", nullable: false),
                    position = table.Column<int>(type: "integer", nullable: false),
                    kind = table.Column<short>(type: "smallint", nullable: false),
                    item_id = table.Column<long>(type: "bigint", nullable: false),
                    action = table.Column<short>(type: "smallint", nullable: false),
                    sent = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    outcome = table.Column<short>(type: "smallint", nullable: false),
                    reason = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_publish_item", x => new { x.publish_id, x.position });
                }
            );

            migrationBuilder.CreateTable(
                name: "step_insertion",
                columns: table => new
                {
                    step_id = table.Column<long>(type: "bigint", nullable: false),
                    kind = table.Column<short>(type: "smallint", nullable: false),
                    first_id = table.Column<long>(type: "bigint", nullable: false),
                    last_id = table.Column<long>(type: "bigint", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey(
                        "pk_step_insertion",
                        x => new
                        {
                            x.step_id,
                            x.kind,
                            x.first_id,
                        }
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "campaign",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    name = table.Column<string>(type: "text", nullable: false),
                    name_key = table.Column<string>(type: "text", nullable: false),
                    state = table.Column<short>(type: "smallint", nullable: false),
                    daily_budget = table.Column<decimal>(type: "numeric(14,3)", nullable: true),
                    start_date = table.Column<DateOnly>(type: "date", nullable: true),
                    end_date = table.Column<DateOnly>(type: "date", nullable: true),
                    networks = table.Column<short>(type: "smallint", nullable: false),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    removed = table.Column<bool>(type: "boolean", nullable: false),
                    is_live = table.Column<bool>(type: "boolean", nullable: false),
                    live = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    review = table.Column<short>(type: "smallint", nullable: false),
                    review_reason = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_campaign", x => x.id);
                    table.ForeignKey(
                        name: "fk_campaign_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "finding",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    weight = table.Column<short>(type: "smallint", nullable: false),
                    code = table.Column<string>(type: "text", nullable: false),
                    kind = table.Column<short>(type: "smallint", nullable: false),
                    item_id = table.Column<long>(type: "bigint", nullable: false),
                    field = table.Column<string>(type: "text", nullable: true),
                    message = table.Column<string>(type: "text", nullable: false),
                    detail = table.Column<string>(type: "text", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_finding", x => x.id);
                    table.ForeignKey(
                        name: "fk_finding_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "step",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<string>(type: "text", nullable: false),
                    made_at = table.Column<DateTimeOffset>(type: "timestamp with time zone", nullable: false),
                    kind = table.Column<short>(type: "smallint", nullable: false),
                    label = table.Column<string>(type: "text", nullable: false),
                    items = table.Column<int>(type: "integer", nullable: false),
                    reverts = table.Column<long>(type: "bigint", nullable: true),
                    reverted_by = table.Column<long>(type: "bigint", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_step", x => x.id);
                    table.ForeignKey(
                        name: "fk_step_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "AspNetRoleClaims",
                columns: table => new
                {
                    id = table
                        .Column<int>(type: "integer", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    role_id = table.Column<string>(type: "text", nullable: false),
                    claim_type = table.Column<string>(type: "text", nullable: true),
                    claim_value = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_role_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_asp_net_role_claims_asp_net_roles_role_id",
                        column: x => x.role_id,
                        principalTable: "AspNetRoles",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "account_member",
                columns: table => new
                {
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    person_id = table.Column<string>(type: "text", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_account_member", x => new { x.person_id, x.account_id });
                    table.ForeignKey(
                        name: "fk_account_member_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "fk_account_member_asp_net_users_person_id",
                        column: x => x.person_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "AspNetUserClaims",
                columns: table => new
                {
                    id = table
                        .Column<int>(type: "integer", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    user_id = table.Column<string>(type: "text", nullable: false),
                    claim_type = table.Column<string>(type: "text", nullable: true),
                    claim_value = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_claims", x => x.id);
                    table.ForeignKey(
                        name: "fk_asp_net_user_claims_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "AspNetUserLogins",
                columns: table => new
                {
                    login_provider = table.Column<string>(type: "text", nullable: false),
                    provider_key = table.Column<string>(type: "text", nullable: false),
                    provider_display_name = table.Column<string>(type: "text", nullable: true),
                    user_id = table.Column<string>(type: "text", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_logins", x => new { x.login_provider, x.provider_key });
                    table.ForeignKey(
                        name: "fk_asp_net_user_logins_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "AspNetUserRoles",
                columns: table => new
                {
                    user_id = table.Column<string>(type: "text", nullable: false),
                    role_id = table.Column<string>(type: "text", nullable: false),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_asp_net_user_roles", x => new { x.user_id, x.role_id });
                    table.ForeignKey(
                        name: "fk_asp_net_user_roles_asp_net_roles_role_id",
                        column: x => x.role_id,
                        principalTable: "AspNetRoles",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "fk_asp_net_user_roles_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "AspNetUserTokens",
                columns: table => new
                {
                    user_id = table.Column<string>(type: "text", nullable: false),
                    login_provider = table.Column<string>(type: "text", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    value = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey(
                        "pk_asp_net_user_tokens",
                        x => new
                        {
                            x.user_id,
                            x.login_provider,
                            x.name,
                        }
                    );
                    table.ForeignKey(
                        name: "fk_asp_net_user_tokens_asp_net_users_user_id",
                        column: x => x.user_id,
                        principalTable: "AspNetUsers",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "ad_group",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    campaign_id = table.Column<long>(type: "bigint", nullable: false),
                    name = table.Column<string>(type: "text", nullable: false),
                    name_key = table.Column<string>(type: "text", nullable: false),
                    state = table.Column<short>(type: "smallint", nullable: false),
                    max_cpc = table.Column<decimal>(type: "numeric(14,3)", nullable: true),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    removed = table.Column<bool>(type: "boolean", nullable: false),
                    is_live = table.Column<bool>(type: "boolean", nullable: false),
                    live = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    review = table.Column<short>(type: "smallint", nullable: false),
                    review_reason = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_ad_group", x => x.id);
                    table.ForeignKey(
                        name: "fk_ad_group_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "fk_ad_group_campaign_campaign_id",
                        column: x => x.campaign_id,
                        principalTable: "campaign",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "keyword",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    ad_group_id = table.Column<long>(type: "bigint", nullable: false),
                    text = table.Column<string>(type: "text", nullable: false),
                    text_key = table.Column<string>(type: "text", nullable: false),
                    match_type = table.Column<short>(type: "smallint", nullable: false),
                    state = table.Column<short>(type: "smallint", nullable: false),
                    max_cpc = table.Column<decimal>(type: "numeric(14,3)", nullable: true),
                    final_url = table.Column<string>(type: "text", nullable: true),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    removed = table.Column<bool>(type: "boolean", nullable: false),
                    is_live = table.Column<bool>(type: "boolean", nullable: false),
                    live = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    review = table.Column<short>(type: "smallint", nullable: false),
                    review_reason = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_keyword", x => x.id);
                    table.ForeignKey(
                        name: "fk_keyword_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "fk_keyword_ad_group_ad_group_id",
                        column: x => x.ad_group_id,
                        principalTable: "ad_group",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "negative_keyword",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    campaign_id = table.Column<long>(type: "bigint", nullable: false),
                    ad_group_id = table.Column<long>(type: "bigint", nullable: true),
                    text = table.Column<string>(type: "text", nullable: false),
                    text_key = table.Column<string>(type: "text", nullable: false),
                    match_type = table.Column<short>(type: "smallint", nullable: false),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    removed = table.Column<bool>(type: "boolean", nullable: false),
                    is_live = table.Column<bool>(type: "boolean", nullable: false),
                    live = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    review = table.Column<short>(type: "smallint", nullable: false),
                    review_reason = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_negative_keyword", x => x.id);
                    table.ForeignKey(
                        name: "fk_negative_keyword_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "fk_negative_keyword_ad_group_ad_group_id",
                        column: x => x.ad_group_id,
                        principalTable: "ad_group",
                        principalColumn: "id"
                    );
                    table.ForeignKey(
                        name: "fk_negative_keyword_campaign_campaign_id",
                        column: x => x.campaign_id,
                        principalTable: "campaign",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateTable(
                name: "text_ad",
                columns: table => new
                {
                    id = table
                        .Column<long>(type: "bigint", nullable: false)
                        .Annotation(
                            "Npgsql:ValueGenerationStrategy",
                            NpgsqlValueGenerationStrategy.IdentityByDefaultColumn
                        ),
                    ad_group_id = table.Column<long>(type: "bigint", nullable: false),
                    state = table.Column<short>(type: "smallint", nullable: false),
                    headlines = table.Column<string[]>(type: "text[]", nullable: false),
                    descriptions = table.Column<string[]>(type: "text[]", nullable: false),
                    display_path = table.Column<string[]>(type: "text[]", nullable: false),
                    final_url = table.Column<string>(type: "text", nullable: false),
                    device_preference = table.Column<short>(type: "smallint", nullable: true),
                    content_key = table.Column<string>(type: "text", nullable: false),
                    account_id = table.Column<int>(type: "integer", nullable: false),
                    removed = table.Column<bool>(type: "boolean", nullable: false),
                    is_live = table.Column<bool>(type: "boolean", nullable: false),
                    live = table.Column<JsonDocument>(type: "jsonb", nullable: true),
                    review = table.Column<short>(type: "smallint", nullable: false),
                    review_reason = table.Column<string>(type: "text", nullable: true),
                },
                constraints: table =>
                {
                    table.PrimaryKey("pk_text_ad", x => x.id);
                    table.ForeignKey(
                        name: "fk_text_ad_account_account_id",
                        column: x => x.account_id,
                        principalTable: "account",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                    table.ForeignKey(
                        name: "fk_text_ad_ad_group_ad_group_id",
                        column: x => x.ad_group_id,
                        principalTable: "ad_group",
                        principalColumn: "id",
                        onDelete: ReferentialAction.Cascade
                    );
                }
            );

            migrationBuilder.CreateIndex(name: "ix_ad_group_account_id", table: "ad_group", column: "account_id");

            migrationBuilder.CreateIndex(
                name: "RoleNameIndex",
                table: "AspNetRoles",
                column: "normalized_name",
                unique: true
            );

            migrationBuilder.CreateIndex(name: "EmailIndex", table: "AspNetUsers", column: "normalized_email");

            migrationBuilder.CreateIndex(
                name: "UserNameIndex",
                table: "AspNetUsers",
                column: "normalized_user_name",
                unique: true
            );

            migrationBuilder.CreateIndex(
                name: "ix_finding_account_id_kind_item_id",
                table: "finding",
                columns: new[] { "account_id", "kind", "item_id" }
            );

            migrationBuilder.CreateIndex(
                name: "ix_intake_account_id_id",
                table: "intake",
                columns: new[] { "account_id", "id" }
            );

            migrationBuilder.CreateIndex(
                name: "ix_job_account_id_id",
                table: "job",
                columns: new[] { "account_id", "id" }
            );

            migrationBuilder.CreateIndex(
                name: "ix_keyword_account_id_text_key",
                table: "keyword",
                columns: new[] { "account_id", "text_key" }
            );

            migrationBuilder.CreateIndex(
                name: "ix_negative_keyword_account_id",
                table: "negative_keyword",
                column: "account_id"
            );

            migrationBuilder.CreateIndex(
                name: "ix_negative_keyword_ad_group_id",
                table: "negative_keyword",
                column: "ad_group_id"
            );

            migrationBuilder.CreateIndex(
                name: "ix_publish_account_id_id",
                table: "publish",
                columns: new[] { "account_id", "id" }
            );

            migrationBuilder.CreateIndex(
                name: "ix_step_account_id_id",
                table: "step",
                columns: new[] { "account_id", "id" }
            );

            migrationBuilder.CreateIndex(name: "ix_text_ad_account_id", table: "text_ad", column: "account_id");

            foreach (var script in new[] { "working-copy", "intake-staging", "performance" })
            {
                migrationBuilder.Sql(FendrikDatabase.Script(script));
            }
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(name: "account_member");

            migrationBuilder.DropTable(name: "AspNetRoleClaims");

            migrationBuilder.DropTable(name: "AspNetUserClaims");

            migrationBuilder.DropTable(name: "AspNetUserLogins");

            migrationBuilder.DropTable(name: "AspNetUserRoles");

            migrationBuilder.DropTable(name: "AspNetUserTokens");

            migrationBuilder.DropTable(name: "check_run");

            migrationBuilder.DropTable(name: "data_protection_keys");

            migrationBuilder.DropTable(name: "finding");

            migrationBuilder.DropTable(name: "intake");

            migrationBuilder.DropTable(name: "intake_file_part");

            migrationBuilder.DropTable(name: "job");

            migrationBuilder.DropTable(name: "keyword");

            migrationBuilder.DropTable(name: "negative_keyword");

            migrationBuilder.DropTable(name: "publish");

            migrationBuilder.DropTable(name: "publish_item");

            migrationBuilder.DropTable(name: "step");

            migrationBuilder.DropTable(name: "step_insertion");

            migrationBuilder.DropTable(name: "text_ad");

            migrationBuilder.DropTable(name: "AspNetRoles");

            migrationBuilder.DropTable(name: "AspNetUsers");

            migrationBuilder.DropTable(name: "ad_group");

            migrationBuilder.DropTable(name: "campaign");

            migrationBuilder.DropTable(name: "account");
        }
    }
}
