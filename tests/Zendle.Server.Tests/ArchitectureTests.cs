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
    [InlineData("src")]
    [InlineData("tests")]
    [InlineData("bench")]
    public void A_file_has_one_namespace_and_no_block_for_it(string folder)
    {
        var written = Directory
            .GetFiles(Path.Combine(Root.Folder, folder), "*.cs", SearchOption.AllDirectories)
            .Where(f => !Regex.IsMatch(f, "/(obj|bin|Migrations|node_modules)/"));
        Assert.All(
            written,
            file =>
                Assert.DoesNotMatch(
                    new Regex(@"^\s*namespace [\w.]+\s*(\{|$)", RegexOptions.Multiline),
                    File.ReadAllText(file)
                )
        );
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

    /// <summary>
    /// Within a project no folder needs another that needs it, over however many steps; a feature of the server counts as
    /// a folder.
    /// </summary>
    [Theory, MemberData(nameof(Projects))]
    public void Folders_of_a_project_form_no_circle(string project)
    {
        static string Folder(string space)
        {
            var parts = space.Split('.')[2..];
            return string.Join('.', parts.Take(parts is ["Features", ..] ? 2 : 1));
        }
        var arrows = new HashSet<(string From, string To)>();
        foreach (var file in Sources(project))
        {
            var text = File.ReadAllText(file);
            if (Regex.Match(text, @"^namespace ([\w.]+)", RegexOptions.Multiline) is not { Success: true } space)
                continue;
            foreach (
                Match used in Regex.Matches(
                    text,
                    $@"^using (?:static )?({Regex.Escape(project)}\.[\w.]+)",
                    RegexOptions.Multiline
                )
            )
                if (Folder(space.Groups[1].Value) is { Length: > 0 } from && Folder(used.Groups[1].Value) is var to)
                    arrows.Add((from, to));
        }
        Assert.Empty(Circle(arrows));
    }

    /// <summary>Folders of the interface, from those that know nothing to those that know everything.</summary>
    private static readonly string[] Layers = ["api", "ui", "review", "set", "features", "app"];

    [Fact]
    public void The_interface_is_built_in_layers_its_features_know_nothing_of_each_other_and_no_folder_circles()
    {
        var arrows = new HashSet<(string From, string To)>();
        var wrong = new List<string>();
        var root = Path.Combine(Root.Folder, "src/interface");
        foreach (var layer in Layers)
        foreach (var file in Directory.GetFiles(Path.Combine(root, layer), "*.ts*", SearchOption.AllDirectories))
        foreach (Match used in Regex.Matches(File.ReadAllText(file), @"(?:from |import |import\()""(\.[^""]+)"""))
        {
            var folder = Path.GetDirectoryName(file)!;
            var target = Path.GetRelativePath(root, Path.GetFullPath(Path.Combine(folder, used.Groups[1].Value)));
            string[] from = Path.GetRelativePath(root, folder).Split('/'),
                to = target.Split('/');
            arrows.Add((string.Join('/', from), string.Join('/', to[..^1])));
            var isBelow = Array.IndexOf(Layers, to[0]) < Array.IndexOf(Layers, from[0]);
            var isAtHome = to[0] == from[0] && (from[0] != "features" || to[1] == from[1]);
            if (Layers.Contains(to[0]) && !isBelow && !isAtHome)
                wrong.Add($"{Path.GetRelativePath(root, file)} takes {target}");
        }
        Assert.True(arrows.Count > 30);
        Assert.Empty(wrong);
        Assert.Empty(Circle(arrows));
    }

    /// <summary>Write, index, show, tell: one owner, so that none is left out.</summary>
    [Fact]
    public void Whoever_changes_the_corpus_goes_through_one_owner()
    {
        string[] owners = ["CorpusChange.cs", "CorpusService.cs"];
        var others = new List<string>();
        foreach (var file in Sources("Zendle.Server").Where(f => !owners.Contains(Path.GetFileName(f))))
        foreach (
            Match found in Regex.Matches(
                File.ReadAllText(file),
                @"\bcorpus\.(?:Take|Put|Refresh)\(|Tell\(new\(""corpus"""
            )
        )
            others.Add($"{Path.GetFileName(file)}: {found.Value}");
        Assert.Empty(others);
    }

    /// <summary>Buttons and links that act are parts of <c>ui/</c>, and components fetch nothing: hooks do.</summary>
    [Fact]
    public void Screens_are_made_of_parts_and_fetch_nothing_themselves()
    {
        var wrong = new List<string>();
        foreach (var layer in Layers[2..])
        foreach (
            var file in Directory.GetFiles(
                Path.Combine(Root.Folder, "src/interface", layer),
                "*.tsx",
                SearchOption.AllDirectories
            )
        )
        foreach (
            Match found in Regex.Matches(
                File.ReadAllText(file),
                @"<button\b|\bfetch\(|\bapi\.[A-Z]+\(|\buse(?:Query|Mutation)\("
            )
        )
            wrong.Add($"{file}: {found.Value}");
        Assert.Empty(wrong);
    }

    /// <summary>Folders that lie on a circle: what is left when those that need none of the others are taken away.</summary>
    private static string[] Circle(IEnumerable<(string From, string To)> arrows)
    {
        var left = arrows.Where(a => a.From != a.To).ToHashSet();
        while (left.RemoveWhere(a => left.All(b => b.From != a.To)) > 0) { }
        return [.. left.Select(a => $"{a.From} → {a.To}").Order()];
    }
}
