using System.Xml.Linq;
using NetArchTest.Rules;

namespace Fendrik.Core.Tests;

/// <summary>Dependencies point inwards: Server → Data → Core, Network → Core; Core knows nothing of the outside.</summary>
public class ArchitectureTests
{
    [Theory]
    [InlineData("Microsoft.AspNetCore")]
    [InlineData("Microsoft.EntityFrameworkCore")]
    [InlineData("Npgsql")]
    [InlineData("System.Net.Http")]
    [InlineData("System.Data")]
    [InlineData("Fendrik.Data")]
    [InlineData("Fendrik.Server")]
    [InlineData("Fendrik.Network")]
    public void Core_depends_on_nothing_outside(string outside) =>
        Types
            .InAssembly(typeof(Core.Accounts.Money).Assembly)
            .ShouldNot()
            .HaveDependencyOn(outside)
            .GetResult()
            .IsSuccessful.ShouldBeTrue();

    [Fact]
    public void Core_reads_no_clock()
    {
        var source = Path.Combine(Root(), "src", "Fendrik.Core");
        var readers = Directory
            .EnumerateFiles(source, "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}"))
            .Where(file =>
                File.ReadAllText(file) is var text
                && (text.Contains("DateTime.Now") || text.Contains("UtcNow") || text.Contains("SystemClock"))
            );
        readers.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("Fendrik.Core", new string[0])]
    [InlineData("Fendrik.Data", new[] { "Fendrik.Core" })]
    [InlineData("Fendrik.Network", new[] { "Fendrik.Core" })]
    [InlineData("Fendrik.Server", new[] { "Fendrik.Core", "Fendrik.Data" })]
    public void Projects_refer_only_inwards(string project, string[] allowed)
    {
        var file = XDocument.Load(Path.Combine(Root(), "src", project, project + ".csproj"));
        file.Descendants("ProjectReference")
            .Select(reference => Path.GetFileNameWithoutExtension(reference.Attribute("Include")!.Value))
            .ShouldBe(allowed, ignoreOrder: true);
    }

    private static string Root()
    {
        var folder = new DirectoryInfo(AppContext.BaseDirectory);
        while (!File.Exists(Path.Combine(folder!.FullName, "Fendrik.slnx")))
        {
            folder = folder.Parent;
        }

        return folder.FullName;
    }
}
