namespace Fendrik.Core.Lists;

/// <summary>Where the item of a row is to stand: what the row names, and the defaults for what it leaves open.</summary>
internal sealed class RowPlaces(RowCells cells, ListDefaults defaults)
{
    /// <summary>Name of the column of campaigns.</summary>
    public static readonly string Campaign = ListColumns.PlaceName(Level.Campaign);

    /// <summary>Name of the column of ad groups.</summary>
    public static readonly string AdGroup = ListColumns.PlaceName(Level.AdGroup);

    /// <summary>Name of the column of negative lists.</summary>
    public static readonly string NegativeList = ListColumns.PlaceName(Level.List);

    /// <summary>Completes the place of a row of a known kind, or says what is wrong with it.</summary>
    public void Read(ListRow row)
    {
        var type = ItemTypes.Of(row.Kind);
        if (type.Holds == Level.List || row.NegativeList.Length > 0)
        {
            if (row.NegativeList.Length == 0)
            {
                cells.Refuse(NegativeList, "is missing; name the list");
            }
            else if (type.Holds != Level.List && !type.StandsIn(Level.List))
            {
                cells.Refuse(NegativeList, "is for negatives only; leave it empty here");
            }
            else if (row.AdGroup.Length > 0)
            {
                cells.Refuse(AdGroup, "has to be empty for what belongs to a negative list");
            }
            else if (type.StandsIn(Level.List) && row.Campaign.Length > 0)
            {
                cells.Refuse(
                    Campaign,
                    $"has to be empty for a {type.Noun} in a list; campaigns are named in a row of the list itself"
                );
            }

            return;
        }

        var named = row.Campaign.Length > 0 || row.AdGroup.Length > 0;
        if (
            type.Levels is [Level.Account] && type.Holds is null
            || (type.StandsIn(Level.Account) && type.Holds is null && !named)
        )
        {
            if (!type.StandsIn(Level.Campaign) && named)
            {
                cells.Refuse(
                    row.Campaign.Length > 0 ? Campaign : AdGroup,
                    $"has to be empty in the row of the {type.Noun}"
                );
            }

            return;
        }

        if (row.Campaign.Length == 0)
        {
            row.Campaign = defaults.Campaign ?? "";
        }

        var needsAdGroup = type.Levels is [Level.AdGroup];
        if (needsAdGroup && row.AdGroup.Length == 0)
        {
            row.AdGroup = defaults.AdGroup ?? "";
        }

        if (row.Campaign.Length == 0)
        {
            cells.Refuse(Campaign, "is missing; choose a campaign for rows without one");
        }
        else if (needsAdGroup && row.AdGroup.Length == 0)
        {
            cells.Refuse(AdGroup, "is missing; choose an ad group for rows without one");
        }
        else if (type.Holds == Level.AdGroup && row.AdGroup.Length == 0)
        {
            cells.Refuse(AdGroup, "is missing; name the ad group");
        }
        else if (type.Holds == Level.Campaign && row.AdGroup.Length > 0)
        {
            cells.Refuse(AdGroup, "has to be empty in the row of a campaign");
        }
    }
}
