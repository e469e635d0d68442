using Fendrik.Data.Sheets;
using Fendrik.Data.Steps;

namespace Fendrik.Data.Outtakes;

/// <summary>The forms of file that items are taken out in.</summary>
public enum OuttakeForm
{
    /// <summary>CSV by RFC 4180, in UTF-8 with a mark, so that spreadsheets see which it is.</summary>
    Csv = 1,

    /// <summary>A workbook (ISO/IEC 29500).</summary>
    Xlsx = 2,

    /// <summary>JSON as <c>/schemas/account-1.json</c> describes it.</summary>
    Json = 3,
}

/// <summary>What is to be taken out: the whole account, or what a filter lets through, or the items named.</summary>
/// <param name="Form">Form of the file.</param>
/// <param name="Where">A filter; none for the whole account, unless items are named.</param>
/// <param name="Items">The items; with a filter, those that are left out.</param>
public sealed record OuttakeWish(
    OuttakeForm Form,
    SheetRequest? Where = null,
    IReadOnlyList<ItemReference>? Items = null
)
{
    /// <summary>True when everything goes in.</summary>
    public bool IsWhole => Where is null && Items is null;
}
