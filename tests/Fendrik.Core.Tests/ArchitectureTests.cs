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
        var readers = Sources("src/Fendrik.Core")
            .Where(file =>
                File.ReadAllText(file) is var text
                && (text.Contains("DateTime.Now") || text.Contains("UtcNow") || text.Contains("SystemClock"))
            );
        readers.ShouldBeEmpty();
    }

    [Fact]
    public void A_file_names_its_namespace_once_at_its_head()
    {
        var nested = Sources("src")
            .Concat(Sources("tests"))
            .Concat(Sources("benchmarks"))
            .Where(file => !file.Contains($"{Path.DirectorySeparatorChar}Migrations{Path.DirectorySeparatorChar}"))
            .Where(file =>
                File.ReadLines(file)
                    .Any(line => line.StartsWith("namespace ", StringComparison.Ordinal) && !line.EndsWith(';'))
            );
        nested.ShouldBeEmpty();
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

    /// <summary>Folders of the data project are layers: what a folder needs never needs that folder.</summary>
    [Fact]
    public void Folders_of_the_data_project_form_no_circles()
    {
        var needs = FoldersNeededBy(typeof(Data.Items.ItemReference).Assembly.Location);
        needs["Commands"].ShouldContain("Steps");

        bool Reaches(string from, string to, HashSet<string> seen) =>
            needs[from].Any(next => next == to || (seen.Add(next) && Reaches(next, to, seen)));
        needs
            .Keys.Where(folder => Reaches(folder, folder, []))
            .Select(folder => $"{folder} → {string.Join(", ", needs[folder])}")
            .ShouldBeEmpty();
    }

    private static Dictionary<string, HashSet<string>> FoldersNeededBy(string assembly)
    {
        using var module = Mono.Cecil.ModuleDefinition.ReadModule(assembly);
        string FolderOf(Mono.Cecil.TypeReference type)
        {
            var outer = type.GetElementType();
            while (outer.DeclaringType is { } around)
            {
                outer = around;
            }

            return
                outer.Scope is Mono.Cecil.ModuleDefinition
                && outer.Namespace.StartsWith("Fendrik.Data.", StringComparison.Ordinal)
                ? outer.Namespace.Split('.')[2]
                : "";
        }

        var needs = new Dictionary<string, HashSet<string>>();
        foreach (var type in module.GetTypes().Where(type => FolderOf(type).Length > 0))
        {
            var folder = FolderOf(type);
            needs.TryAdd(folder, []);
            var named = type
                .Methods.SelectMany(method =>
                    method
                        .Parameters.Select(parameter => parameter.ParameterType)
                        .Append(method.ReturnType)
                        .Concat(
                            (method.Body?.Instructions ?? []).Select(instruction =>
                                instruction.Operand switch
                                {
                                    Mono.Cecil.TypeReference reference => reference,
                                    Mono.Cecil.MemberReference member => member.DeclaringType,
                                    _ => null,
                                }
                            )
                        )
                )
                .Concat(type.Fields.Select(field => field.FieldType))
                .OfType<Mono.Cecil.TypeReference>();
            needs[folder].UnionWith(named.Select(FolderOf).Where(other => other.Length > 0 && other != folder));
        }

        return needs;
    }

    private static IEnumerable<string> Sources(string folder) =>
        Directory
            .EnumerateFiles(Path.Combine(Root(), folder), "*.cs", SearchOption.AllDirectories)
            .Where(file => !file.Contains($"{Path.DirectorySeparatorChar}obj{Path.DirectorySeparatorChar}"));

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
