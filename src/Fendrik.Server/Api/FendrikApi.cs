using Fendrik.Server.Access;
using Fendrik.Server.Api.Bidding;
using Fendrik.Server.Api.Calls;
using Fendrik.Server.Api.Conversions;
using Fendrik.Server.Api.Desk;
using Fendrik.Server.Api.People;
using Fendrik.Server.Api.Pricing;
using Fendrik.Server.Api.Results;
using Fendrik.Server.Api.Terms;
using Fendrik.Server.Api.Tracing;
using Fendrik.Server.Api.Writing;
using Fendrik.Server.Operation;

namespace Fendrik.Server.Api;

/// <summary>All endpoints of the API: those of a person, and those of one account.</summary>
internal static class FendrikApi
{
    public static void MapFendrikApi(this IEndpointRouteBuilder app)
    {
        app.MapSession();
        app.MapSignIns();
        app.MapInvitations();
        app.MapAccounts();
        app.MapAccountsOnDesk();
        app.MapFileSchema();
        var account = app.MapAccount();
        account.MapOverview();
        account.MapPeople();
        account.MapAccountItself();
        account.MapNotes();
        account.MapItems();
        account.MapSheet();
        account.MapChanges();
        account.MapCleaning();
        account.MapSearchTerms();
        account.MapNews();
        account.MapLive();
        account.MapIntakes();
        account.MapOuttakes();
        account.MapShip();
        account.MapLooks();
        account.MapVariants();
        account.MapTrace();
        account.MapTerms();
        account.MapSavedSearches();
        account.MapPayer();
        account.MapAds();
        account.MapAdVersions();
        account.MapIdeas();
        account.MapTexts();
        account.MapAppeals();
        account.MapExtensions();
        account.MapLinks();
        account.MapBudgets();
        account.MapPlaces();
        account.MapHours();
        account.MapWeekParts();
        account.MapBids();
        account.MapStrategies();
        account.MapKeywordBids();
        account.MapEstimates();
        account.MapResults();
        account.MapDesk();
        account.MapMoved();
        account.MapConversions();
        account.MapBooks();
        account.MapCalls();
    }
}
