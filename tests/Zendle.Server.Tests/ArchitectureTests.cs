using System.Text.RegularExpressions;

namespace Zendle.Server.Tests;

/// <summary>Arrows run one way: Server → Connect, Documents, Index, Store → Core; the outside stands alone.</summary>
public sealed class ArchitectureTests
{
    private static readonly Dictionary<string, string[]> Allowed = new()
    {
        ["Zendle.Core"] = [],
        ["Zendle.Index"] = ["Zendle.Core"],
        ["Zendle.Store"] = ["Zendle.Core"],
        ["Zendle.Connect"] = ["Zendle.Core"],
        ["Zendle.Documents"] = ["Zendle.Core"],
        ["Zendle.Server"] =
        [
            "Zendle.Core",
            "Zendle.Index",
            "Zendle.Store",
            "Zendle.Connect",
            "Zendle.Documents",
            "Zendle.Reader",
        ],
        ["Zendle.Reader"] = ["Zendle.Core", "Zendle.Documents"],
        ["Zendle.Outside"] = [],
    };

    public static TheoryData<string> Projects =>
        [.. Directory.GetDirectories(Path.Combine(Root.Folder, "src"), "Zendle.*").Select(d => Path.GetFileName(d)!)];

    private static string[] Sources(string project) =>
        Directory.GetFiles(Path.Combine(Root.Folder, "src", project), "*.cs", SearchOption.AllDirectories);

    [Theory, MemberData(nameof(Projects))]
    public void A_project_references_only_what_lies_below_it(string project)
    {
        var text = File.ReadAllText(Path.Combine(Root.Folder, "src", project, project + ".csproj"));
        var references = Regex
            .Matches(text, @"ProjectReference Include=""\.\./([\w.]+)/")
            .Select(m => m.Groups[1].Value);
        Assert.Empty(references.Except(Allowed[project]));
    }

    [Theory, MemberData(nameof(Projects))]
    public void Code_stands_in_its_own_namespace_and_uses_only_those_below(string project)
    {
        foreach (var file in Sources(project))
        {
            var text = File.ReadAllText(file);
            if (Regex.Match(text, @"^namespace ([\w.]+)", RegexOptions.Multiline) is { Success: true } space)
                Assert.True(space.Groups[1].Value.StartsWith(project, StringComparison.Ordinal), file);
            foreach (Match used in Regex.Matches(text, @"^using (?:static )?(Zendle\.\w+)", RegexOptions.Multiline))
                Assert.True(
                    used.Groups[1].Value == project || Allowed[project].Contains(used.Groups[1].Value),
                    $"{file} uses {used.Groups[1].Value}"
                );
        }
    }

    [Theory]
    [InlineData("Microsoft.EntityFrameworkCore")]
    [InlineData("Microsoft.AspNetCore")]
    [InlineData("System.Net.Http")]
    [InlineData("Lucene")]
    public void The_core_knows_no_framework(string framework) =>
        Assert.All(
            Sources("Zendle.Core"),
            file => Assert.DoesNotContain($"using {framework}", File.ReadAllText(file), StringComparison.Ordinal)
        );

    [Fact]
    public void A_feature_stands_under_one_name_on_both_sides()
    {
        var interfaceFeatures = Directory
            .GetDirectories(Path.Combine(Root.Folder, "src/interface/features"))
            .Select(d => Path.GetFileName(d)!);
        var serverFeatures = Directory
            .GetDirectories(Path.Combine(Root.Folder, "src/Zendle.Server/Features"))
            .Select(d => Path.GetFileName(d)!.ToLowerInvariant())
            .Append("identity")
            .ToHashSet();
        Assert.Empty(interfaceFeatures.Except(serverFeatures));
    }
}
