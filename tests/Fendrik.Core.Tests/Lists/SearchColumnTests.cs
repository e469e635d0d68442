using Fendrik.Core.Lists;

namespace Fendrik.Core.Tests.Lists;

public class SearchColumnTests
{
    [Theory]
    [InlineData("Day|Search term|Clicks", 1)]
    [InlineData("Suchbegriff", 0)]
    [InlineData("Clicks|KEYWORD", 1)]
    [InlineData("piano tuner york|12", null)]
    public void Is_the_one_whose_header_says_so(string row, int? column) =>
        SearchColumn.In(row.Split('|')).ShouldBe(column);
}
