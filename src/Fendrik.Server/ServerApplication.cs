using System.Globalization;
using System.Net;
using System.Text.Json.Serialization;
using System.Text.Json.Serialization.Metadata;
using Dapper;
using Fendrik.Data.Accounts;
using Fendrik.Data.Calls;
using Fendrik.Data.Checking;
using Fendrik.Data.Cleaning;
using Fendrik.Data.Commands.Patterns;
using Fendrik.Data.Conversions;
using Fendrik.Data.Extensions;
using Fendrik.Data.Intakes;
using Fendrik.Data.Links;
using Fendrik.Data.Live;
using Fendrik.Data.Model;
using Fendrik.Data.Outtakes;
using Fendrik.Data.People;
using Fendrik.Data.Publishing;
using Fendrik.Data.Results;
using Fendrik.Data.Results.Breakdowns;
using Fendrik.Data.Results.Own;
using Fendrik.Data.Results.Strategies;
using Fendrik.Data.Setup;
using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;
using Fendrik.Data.Terms;
using Fendrik.Data.Tracing;
using Fendrik.Data.Variants;
using Fendrik.Data.Writing;
using Fendrik.Server.Access;
using Fendrik.Server.Api;
using Fendrik.Server.Api.Desk;
using Fendrik.Server.Demo;
using Fendrik.Server.Estimates;
using Fendrik.Server.Jobs;
using Fendrik.Server.Links;
using Fendrik.Server.Live;
using Fendrik.Server.Networks;
using Fendrik.Server.Operation;
using Fendrik.Server.Publishing;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HttpOverrides;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Fendrik.Server;

/// <summary>The server as a web application; tests start it as it is.</summary>
public static class ServerApplication
{
    /// <summary>Puts the server together.</summary>
    /// <param name="args">Settings.</param>
    /// <param name="otherwise">What is registered in place of what ships.</param>
    public static WebApplication Build(string[] args, Action<IServiceCollection>? otherwise = null)
    {
        CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture;
        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;
        DefaultTypeMap.MatchNamesWithUnderscores = true;
        var builder = WebApplication.CreateBuilder(args);
        var connection = Needed(builder.Configuration, "Fendrik:Database");
        builder.WebHost.ConfigureKestrel(kestrel => kestrel.AddServerHeader = false);
        AddData(builder.Services, builder.Configuration, connection);
        AddAccess(builder.Services);
        RequestLimits.Add(builder.Services, builder.Configuration.GetValue("Fendrik:LimitsScale", 1));
        SearchNetworks.Add(builder.Services, builder.Configuration);
        AddJobs(builder.Services);
        BehindProxies(builder.Services, builder.Configuration["Fendrik:Proxies"]);
        builder.Services.AddExceptionHandler<ProblemAnswers>();
        builder.Services.AddProblemDetails(options =>
            options.CustomizeProblemDetails = answer =>
                answer.ProblemDetails.Extensions["traceId"] = ProblemAnswers.IdOf(answer.HttpContext)
        );
        builder.Services.AddSingleton<DataDisk>();
        builder.Services.AddSingleton<JobMeasures>();
        builder.Services.AddFendrikHealth();
        builder.Services.AddFendrikTelemetry(builder.Configuration);
        builder.Services.Configure<RouteHandlerOptions>(options => options.ThrowOnBadRequest = true);
        builder.Services.AddOpenApi(
            "v1",
            options =>
            {
                options.AddDocumentTransformer(
                    (document, _, _) =>
                    {
                        document.Info.Title = "Fendrik";
                        document.Servers = null;
                        return Task.CompletedTask;
                    }
                );
                options.AddSchemaTransformer<ItemValueSchemas>();
            }
        );
        builder.Services.ConfigureHttpJsonOptions(options =>
        {
            options.SerializerOptions.NumberHandling = JsonNumberHandling.Strict;
            options.SerializerOptions.RespectNullableAnnotations = true;
            options.SerializerOptions.RespectRequiredConstructorParameters = true;
            options.SerializerOptions.TypeInfoResolver = new DefaultJsonTypeInfoResolver
            {
                Modifiers = { WholeLists.Need },
            };
            options.SerializerOptions.Converters.Add(
                new JsonStringEnumConverter(System.Text.Json.JsonNamingPolicy.CamelCase, allowIntegerValues: false)
            );
        });
        otherwise?.Invoke(builder.Services);
        var app = builder.Build();
        Use(app);
        return app;
    }

    /// <summary>Brings the database up to date.</summary>
    public static async Task PrepareAsync(WebApplication app)
    {
        await using (var scope = app.Services.CreateAsyncScope())
        {
            await FendrikDatabase.PrepareAsync(
                scope.ServiceProvider.GetRequiredService<FendrikContext>(),
                scope.ServiceProvider.GetRequiredService<NpgsqlDataSource>()
            );
        }
    }

    private static void AddData(IServiceCollection services, IConfiguration configuration, string connection)
    {
        services.AddSingleton(TimeProvider.System);
        services.AddSingleton(NpgsqlDataSource.Create(connection));
        services.AddDbContext<FendrikContext>(options => FendrikDatabase.Configure(options, connection));
        services.AddSingleton<AccountRegister>();
        services.AddSingleton<NoteBook>();
        services.AddSingleton<WorkingCopy>();
        services.AddSingleton<AccountQueue>();
        services.AddSingleton<StepHistory>();
        services.AddSingleton<KeptHistory>();
        services.AddSingleton<AccountChecks>();
        services.AddSingleton<SheetReader>();
        services.AddSingleton<SavedViews>();
        services.AddSingleton<LiveDifferences>();
        services.AddTransient<LiveCopy>();
        services.AddSingleton<AccountNews>();
        services.AddHostedService(provider => provider.GetRequiredService<AccountNews>());
        services.AddSingleton<KeywordMemory>();
        services.AddSingleton<AccountToday>();
        services.AddSingleton<AdGroupWords>();
        services.AddSingleton<SearchesOfAdGroup>();
        services.AddSingleton<CombinationFigures>();
        services.AddSingleton<PatternReader>();
        services.AddSingleton<VariantReader>();
        services.AddSingleton<PageBook>();
        services.AddSingleton<ExtensionCoverage>();
        services.AddSingleton<ExtensionFigures>();
        services.AddSingleton<LinkBook>();
        services.AddSingleton<NightlyLinks>();
        services.AddSingleton<AdVersions>();
        services.AddSingleton<IdeaBank>();
        services.AddSingleton<EvidenceReader>();
        services.AddSingleton<TargetReader>();
        services.AddSingleton<StrategyBasisReader>();
        services.AddSingleton<ReplayReader>();
        services.AddSingleton<KeywordBidReader>();
        services.AddSingleton<EstimateBook>();
        services.AddScoped<EstimateDesk>();
        services.AddSingleton<BudgetReader>();
        services.AddSingleton<ConversionReader>();
        services.AddSingleton<CallReader>();
        services.AddSingleton<TestVisitor>();
        services.AddSingleton<AccountDemand>();
        services.AddSingleton<PricedCampaignReader>();
        services.AddSingleton<AnsweringHoursReader>();
        services.AddSingleton<NightWatch>();
        services.AddSingleton<PageVisitor>();
        services.AddSingleton<LinkChecker>();
        services.AddSingleton<TermTrace>();
        services.AddSingleton<SavedSearchBook>();
        services.AddSingleton<WorkingCopyTrace>();
        services.AddSingleton<Duplicates>();
        services.AddSingleton<NegativeReview>();
        services.AddSingleton<NegativeForms>();
        services.AddSingleton<TermSums>();
        services.AddSingleton<TermReader>();
        services.AddSingleton<TermProposals>();
        services.AddSingleton<NegativeForecast>();
        services.AddSingleton<PendingChanges>();
        services.AddSingleton<LookBook>();
        services.AddSingleton<VariantBook>();
        services.AddSingleton<VariantSheets>();
        services.AddSingleton<HeldChanges>();
        services.AddSingleton<StatusCounts>();
        services.AddSingleton<PublishRecords>();
        services.AddSingleton(provider => new PublishBatches(
            provider.GetRequiredService<NpgsqlDataSource>(),
            configuration.GetValue("Fendrik:PublishBatchSize", PublishBatches.UsualSize)
        ));
        services.AddSingleton<PublishAnswers>();
        services.AddSingleton<ReviewRecords>();
        services.AddSingleton<PerformanceStore>();
        services.AddSingleton<DayReports>();
        services.AddSingleton<MarketReader>();
        services.AddSingleton<AdComparisonReader>();
        services.AddSingleton<ResultsReader>();
        services.AddSingleton<BreakdownReader>();
        services.AddSingleton<MeasureBook>();
        services.AddSingleton<BookTotals>();
        services.AddSingleton<OwnChangeReader>();
        services.AddSingleton<AlertBook>();
        services.AddSingleton<ConditionReader>();
        services.AddSingleton<RefusedReader>();
        services.AddScoped<DeskReader>();
        services.AddScoped<DeskDigest>();
        services.AddScoped<Api.Results.CampaignConditions>();
        services.AddScoped<Api.Results.ResultsItems>();
        services.AddSingleton<IntakeDesk>();
        services.AddSingleton<IntakeReading>();
        services.AddSingleton<OuttakeDesk>();
        services.AddSingleton<OuttakeFile>();
    }

    private static void AddAccess(IServiceCollection services)
    {
        // OWASP, "Password Storage Cheat Sheet", for PBKDF2 with HMAC-SHA-512 (from memory).
        services.Configure<PasswordHasherOptions>(options => options.IterationCount = 210_000);
        services.AddDataProtection().SetApplicationName("Fendrik").PersistKeysToDbContext<FendrikContext>();
        services
            .AddIdentityCore<Person>(options =>
            {
                options.User.RequireUniqueEmail = true;
                options.Password.RequiredLength = 12;
                options.Password.RequireNonAlphanumeric = false;
                options.Password.RequireUppercase = false;
                options.Password.RequireDigit = false;
            })
            .AddEntityFrameworkStores<FendrikContext>()
            .AddSignInManager();
        services.AddAuthentication(IdentityConstants.ApplicationScheme).AddIdentityCookies();
        services.ConfigureApplicationCookie(cookie =>
        {
            cookie.Cookie.Name = "fendrik";
            cookie.Cookie.SameSite = SameSiteMode.Strict;
            cookie.Cookie.HttpOnly = true;
            cookie.Events.OnRedirectToLogin = context => Answer(context.HttpContext, StatusCodes.Status401Unauthorized);
            cookie.Events.OnRedirectToAccessDenied = context =>
                Answer(context.HttpContext, StatusCodes.Status403Forbidden);
        });
        services.AddHttpContextAccessor();
        services.AddSingleton<SignInBook>();
        services.AddSingleton<AttemptBook>();
        services.AddSingleton<FactorBook>();
        services.AddScoped<PasswordDesk>();
        services.AddSingleton<MemberBook>();
        services.AddSingleton<InvitationBook>();
        services.AddSingleton<SignInTickets>();
        services
            .AddOptions<CookieAuthenticationOptions>(IdentityConstants.ApplicationScheme)
            .Configure<SignInTickets>((cookie, tickets) => cookie.SessionStore = tickets);
        services.AddAuthorization();
        services.AddAntiforgery(options =>
        {
            options.HeaderName = "X-Fendrik-Token";
            options.Cookie.Name = "fendrik-token";
            options.Cookie.SameSite = SameSiteMode.Strict;
        });
    }

    /// <summary>What a proxy says of who asks, and how, is believed of those that are named, and of nobody else.</summary>
    private static void BehindProxies(IServiceCollection services, string? proxies) =>
        services.Configure<ForwardedHeadersOptions>(options =>
        {
            options.KnownProxies.Clear();
            options.KnownIPNetworks.Clear();
            if (proxies is null)
            {
                options.ForwardedHeaders = ForwardedHeaders.None;
                return;
            }

            options.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            foreach (var proxy in proxies.Split([' ', ','], StringSplitOptions.RemoveEmptyEntries))
            {
                options.KnownProxies.Add(IPAddress.Parse(proxy));
            }
        });

    private static Task Answer(HttpContext context, int status)
    {
        context.Response.StatusCode = status;
        return Task.CompletedTask;
    }

    private static void AddJobs(IServiceCollection services)
    {
        services.AddSingleton<JobBell>();
        services.AddSingleton<JobDesk>();
        services.AddSingleton<JobRunner>();
        services.AddHostedService<JobWorker>();
        services.AddHostedService<HistoryCleaner>();
        services.AddHostedService(provider => provider.GetRequiredService<NightWatch>());
        services.AddSingleton<JobWatch>();
        services.AddTransient<JobWork>();
        services.AddTransient<PublishSender>();
        services.AddTransient<PublishDesk>();
        services.AddTransient<ClockRunner>();
        services.AddTransient<AccountConnector>();
        services.AddTransient<DemoLoader>();
    }

    private static void Use(WebApplication app)
    {
        app.UseForwardedHeaders();
        app.UseExceptionHandler();
        app.UseFendrikHeaders();
        app.UseDefaultFiles();
        app.UseStaticFiles();
        app.UseAuthentication();
        app.UseAuthorization();
        app.UseRateLimiter();
        app.Use(next => context => AccountAccess.OnlyWithRightAsync(context, next));
        app.MapOpenApi("/openapi/{documentName}.json").AllowAnonymous();
        app.MapGet("/health", () => "ready").AllowAnonymous().ExcludeFromDescription();
        app.MapHealth();
        app.MapFendrikApi();
        app.Map(
                "/api/{**rest}",
                () => Results.Problem("There is nothing here.", statusCode: StatusCodes.Status404NotFound)
            )
            .AllowAnonymous()
            .ExcludeFromDescription();
        app.MapFallbackToFile("index.html").AllowAnonymous();
    }

    private static string Needed(IConfiguration configuration, string name) =>
        configuration[name] ?? throw new InvalidOperationException($"The setting {name} is missing.");
}
