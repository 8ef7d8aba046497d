using System.Globalization;
using Microsoft.EntityFrameworkCore;
using Zendle.Core.Merging;
using Zendle.Core.Records;
using Zendle.Core.Reviews;
using Zendle.Index.Columns;
using Zendle.Server.Corpus;
using Zendle.Store.Corpus;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Server.Tests;

/// <summary>Columns that follow the store change by change are those that are built from nothing.</summary>
public sealed class ColumnsBuildTests : IAsyncLifetime
{
    private readonly SmallStore store = new();
    private readonly string data = Directory.CreateTempSubdirectory("zendle-columns-").FullName;
    private CorpusWriter writer = null!;

    public async ValueTask InitializeAsync()
    {
        await store.Open();
        writer = store.NewWriter();
    }

    public async ValueTask DisposeAsync()
    {
        await store.DisposeAsync();
        Directory.Delete(data, recursive: true);
    }

    private Task Write(int database, params (string Id, Record? Record)[] page) =>
        writer.Write(
            database,
            [
                .. page.Select(p =>
                    PreparedRecord.Of(
                        database,
                        new(p.Id, DateTimeOffset.UnixEpoch, p.Record, RecordCodec.Source($"{p.Id} {Guid.NewGuid()}"))
                    )
                ),
            ],
            SmallStore.Mark,
            DateTimeOffset.UnixEpoch,
            CancellationToken.None
        );

    private async Task<CorpusColumns> Built(ColumnsBuild build) =>
        await build.Build(
            await store.Reader.Sequence(CancellationToken.None),
            await store.Reader.Databases(CancellationToken.None),
            CancellationToken.None
        );

    /// <summary>A build that is cancelled after a moment, wherever it is then.</summary>
    private async Task BrokenOff(ColumnsBuild build, int milliseconds)
    {
        using var cancel = new CancellationTokenSource();
        cancel.CancelAfter(milliseconds);
        if (milliseconds == 0)
            await cancel.CancelAsync();
        try
        {
            await build.Build(
                await store.Reader.Sequence(CancellationToken.None),
                await store.Reader.Databases(CancellationToken.None),
                cancel.Token
            );
        }
        catch (OperationCanceledException) { }
    }

    private ColumnsBuild NewBuild(string? data = null) =>
        new(
            store.Reader,
            writer,
            TimeProvider.System,
            new() { Data = data ?? Path.Combine(this.data, Guid.NewGuid().ToString("N")) }
        );

    private static (DocumentType, bool, bool, bool) Shown(RecordFields f) =>
        (f.Type, f.HasAbstract, f.HasKeywords, f.HasReferences);

    /// <summary>Who reports each tie of a work.</summary>
    private static IEnumerable<string> Reporters(CorpusColumns c, int work) =>
        c
            .Graph.CitesReported(work)
            .ToArray()
            .Select(k => string.Join('+', c.Graph.Databases.Where((_, i) => (c.Graph.Mask(k) >> i & 1) == 1)));

    /// <summary>All that columns say, work by work.</summary>
    private static string Told(CorpusColumns c) =>
        string.Join(
            '\n',
            Enumerable
                .Range(0, c.WorkSize)
                .Where(w => c.WorkFirstRecord[w] > 0)
                .Select(w =>
                    string.Create(
                        CultureInfo.InvariantCulture,
                        $"{w}: {c.WorkFirstRecord[w]} "
                            + $"{string.Join(' ', c.RecordsOf(w).ToArray().Select(c.FieldsOf).Select(Shown))} "
                            + $"{c.Year[w]} {c.SortTitle[w]} | {c.SortPerson[w]} | {c.TitleRank[w]} "
                            + $"{c.PersonRank[w]} {c.VenueRank[w]} | cites "
                            + $"{string.Join(',', c.Graph.Cites(w).ToArray())} by {string.Join(',', Reporters(c, w))} | cited "
                            + $"{string.Join(',', c.Graph.CitedBy(w).ToArray())} | only cited "
                            + $"{c.OnlyCited.Contains(w)}"
                    )
                    + string.Concat(
                        new[]
                        {
                            Facet.Type,
                            Facet.Person,
                            Facet.Venue,
                            Facet.Subject,
                            Facet.Database,
                            Facet.Year,
                            Facet.Text,
                        }.Select(f =>
                            $" | {string.Join(';', c.Of(f).Of(w).ToArray().Select(v => c.Of(f).Names[v]).Order(StringComparer.Ordinal))}"
                        )
                    )
                )
        );

    [Fact]
    public async Task A_venue_is_found_under_the_title_it_was_shown_under_before()
    {
        static Record In(string id, string venue, string? issn = null) =>
            new()
            {
                Identifier = id,
                Title = $"Moths and lamps along the lit verge number {id}",
                Venue = new(venue, issn),
            };
        var build = NewBuild();
        await Write(1, ("1", In("1", "Hedge Ecol.")), ("2", In("2", "Lamp Letters")));
        var before = await Built(build);
        Assert.Equal(["Hedge Ecol.", "Lamp Letters"], before.Of(Facet.Venue).Names.Order());
        await Write(1, ("3", In("3", "Hedge Ecology")), ("4", In("4", "Hedge Ecology")));
        foreach (var columns in new[] { await Built(build), await Built(NewBuild()) })
        {
            Assert.Equal("Hedge Ecology", columns.Today(Facet.Venue, "hedge ecol."));
            Assert.Equal("Lamp Letters", columns.Today(Facet.Venue, "Lamp Letters"));
            Assert.Equal("Nowhere", columns.Today(Facet.Venue, "Nowhere"));
        }
    }

    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    public async Task Any_changes_give_the_columns_that_a_build_from_nothing_gives(int seed)
    {
        var random = new Random(seed);
        var kept = NewBuild();
        var folder = Path.Combine(data, "kept");
        Directory.CreateDirectory(Path.Combine(folder, "index"));
        var stopping = NewBuild(folder);
        var restFolder = Path.Combine(data, "resting");
        Directory.CreateDirectory(Path.Combine(restFolder, "index"));
        var resting = NewBuild(restFolder);
        string[] people = ["Berg", "Lind", "Moe-Berg", "Voss"];
        string Title(int n) => $"Moths and lamps along the lit verge number {n} of a long coast";
        Record Any(string id)
        {
            var n = random.Next(8);
            Reference Cited(int m) =>
                random.Next(4) switch
                {
                    0 => new($"10.5555/w{m}", $"10.5555/w{m}"),
                    1 => new(
                        $"Berg, M. (200{m}). {Title(m)}. Verge Studies {m}, {m}0-{m}9.",
                        null,
                        Title(m),
                        "Berg",
                        2000 + m
                    ),
                    2 => PrintedReference.Read($"Berg, M. (200{m}). {Title(m)}. Verge Studies {m}, {m}0-{m}9."),
                    _ => PrintedReference.Read($"Berg M. Verge Studies {m}: {m}0 (200{m})"),
                };
            return new()
            {
                Identifier = id,
                Title = random.Next(6) == 0 ? "" : Title(n),
                Year = random.Next(8) == 0 ? null : 2000 + n,
                Doi = random.Next(3) == 0 ? null : $"10.5555/w{n}",
                People =
                [
                    new("Berg", "Mei", Affiliation: "Cordrey College"),
                    new(people[random.Next(4)], random.Next(2) == 0 ? "A." : "Anna"),
                ],
                Venue = new(random.Next(3) == 0 ? "Verge Stud." : "Verge Studies", Volume: $"{n}", FirstPage: $"{n}0"),
                Type = random.Next(5) == 0 ? DocumentType.Preprint : DocumentType.Article,
                Subjects = ["Plant ecology"],
                Abstract = random.Next(2) == 0 ? "" : "Moths came.",
                Keywords = random.Next(2) == 0 ? [] : ["lamps"],
                IsOnlyCited = random.Next(6) == 0,
                References = [.. Enumerable.Range(0, random.Next(5)).Select(_ => Cited(random.Next(8)))],
            };
        }
        const int Texts = 3,
            Table = 4;
        await using (var context = store.Context())
        {
            context.TieSources.Add(
                new()
                {
                    Id = Texts,
                    Address = TieSourceRow.OfTexts,
                    Name = "texts",
                }
            );
            context.TieSources.Add(
                new()
                {
                    Id = Table,
                    Address = TieSourceRow.OfTables + "1",
                    Name = "table",
                }
            );
            await context.SaveChangesAsync();
        }
        async Task ChangeLists()
        {
            Reference[] Cited() => [.. Any("x").References];
            if (random.Next(3) == 0)
                await writer.Add(Texts, [PreparedList.Of(random.Next(1, 20), Cited())], CancellationToken.None);
            if (random.Next(4) == 0)
                await writer.Add(
                    Table,
                    [
                        PreparedList.By(
                            MergeKeys.Doi($"10.5555/w{random.Next(8)}"),
                            [
                                .. Enumerable
                                    .Range(0, 3)
                                    .Select(_ => $"10.5555/w{random.Next(9)}")
                                    .Select(d => new Reference(d, d)),
                            ]
                        ),
                    ],
                    CancellationToken.None
                );
            if (random.Next(12) == 0)
                await writer.RemoveLists(Table, CancellationToken.None);
        }
        var database = new Dictionary<string, int>();
        for (var round = 0; round < 25; round++)
        {
            var page = Enumerable.Range(0, random.Next(1, 4)).Select(_ => "r" + random.Next(20)).Distinct().ToArray();
            foreach (var id in page)
            {
                if (!database.TryGetValue(id, out var at))
                    database[id] = at = random.Next(1, 3);
                await Write(at, (id, random.Next(5) == 0 ? null : Any(id)));
            }
            await ChangeLists();
            var anew = await Built(NewBuild());
            var whole = Told(anew);
            Assert.Equal(await TiesInStore(Texts), Ties(anew));
            Assert.Equal(whole, Told(await Built(kept)));
            // One that ends now and then goes on from what was written down.
            Assert.Equal(whole, Told(await Built(stopping)));
            // One that is broken off now and then, and lets go of what is written down.
            if (random.Next(3) == 0)
                await BrokenOff(resting, random.Next(12));
            Assert.Equal(whole, Told(await Built(resting)));
            resting.WriteDown();
            resting.LetGo();
            if (random.Next(2) == 0)
                stopping.WriteDown();
            if (random.Next(3) == 0)
                stopping = NewBuild(folder);
        }
        Assert.Contains("cites", Told(await Built(kept)), StringComparison.Ordinal);

        string Ties(CorpusColumns c) =>
            string.Join(
                ' ',
                Enumerable.Range(0, c.WorkSize).SelectMany(w => c.Graph.Cites(w).ToArray().Select(o => $"{w}>{o}"))
            );
    }

    /// <summary>Who cites whom, told plainly from what lies in the store and what the matcher says of each reference.</summary>
    private async Task<string> TiesInStore(int texts)
    {
        var matcher = (await Built(NewBuild())).References;
        await using var context = store.Context();
        var today = context.Works.AsNoTracking().ToDictionary(w => w.Id, w => w.RedirectTo ?? w.Id);
        var records = context.Records.AsNoTracking().Where(r => r.WorkId > 0 && !r.Deleted).ToArray();
        var found = new HashSet<(int, int)>();
        void Take(int work, byte[] references) =>
            found.UnionWith(
                RecordCodec
                    .References(references)
                    .Select(r => (work, matcher.Match(r).Work))
                    .Where(t => t.Item2 > 0 && t.Item2 != work)
            );
        foreach (var record in records)
            Take(record.WorkId, record.References);
        foreach (var list in context.AddedLists.AsNoTracking())
        {
            var work =
                list.WorkId > 0
                    ? today.GetValueOrDefault(list.WorkId, list.WorkId)
                    : matcher.ByKeys(new(unchecked((ulong)list.Citing), 0, 0)).Work;
            var own = records.Where(r => r.WorkId == work).ToArray();
            if (own.Length > 0 && (list.SourceId != texts || own.All(r => r.References.Length == 0)))
                Take(work, list.References);
        }
        return string.Join(' ', found.Order().Select(t => $"{t.Item1}>{t.Item2}"));
    }

    [Fact]
    public async Task When_most_works_changed_everything_is_built_anew()
    {
        Record Titled(int n, string title) =>
            new()
            {
                Identifier = $"r{n}",
                Title = $"{title} number {n}",
                Year = 2000,
                People = [new("Berg", "Mei")],
            };
        await Write(1, [.. Enumerable.Range(1, 12).Select(n => ($"r{n}", (Record?)Titled(n, "Moths")))]);
        var build = new ColumnsBuild(
            store.Reader,
            store.NewWriter(),
            TimeProvider.System,
            new() { Data = Path.Combine(data, "few") }
        )
        {
            MostFollowed = 2,
        };
        await Built(build);
        foreach (var changed in new[] { 2, 3, 4, 12 })
        {
            await Write(
                1,
                [.. Enumerable.Range(1, changed).Select(n => ($"r{n}", (Record?)Titled(n, $"Bats {changed}")))]
            );
            Assert.Equal(Told(await Built(NewBuild())), Told(await Built(build)));
        }
    }

    [Fact]
    public async Task A_reference_finds_its_work_when_the_record_arrives_and_loses_it_when_it_goes()
    {
        var kept = NewBuild();
        var citing = new Record
        {
            Identifier = "a",
            Title = "A paper that cites what nobody has yet",
            Year = 2010,
            People = [new("Lind", "Per")],
            References =
            [
                PrintedReference.Read(
                    "Berg, M. (2001). Moths and lamps along the lit verge of a coast. Verge Studies 4, 10-19."
                ),
            ],
        };
        await Write(1, ("a", citing));
        var before = await Built(kept);
        Assert.Equal(0, before.Graph.Ties);
        await Write(
            2,
            (
                "b",
                new Record
                {
                    Identifier = "b",
                    Title = "Moths and lamps along the lit verge of a coast",
                    Year = 2001,
                    People = [new("Berg", "Mei")],
                }
            )
        );
        var after = await Built(kept);
        Assert.Equal([2], after.Graph.Cites(1).ToArray());
        Assert.Equal(0, before.Graph.Ties); // what was handed out does not change
        await Write(2, ("b", null));
        Assert.Equal(0, (await Built(kept)).Graph.Ties);
    }

    [Theory]
    [InlineData("columns", 0)]
    [InlineData("columns", 40)]
    [InlineData("columns", 300)]
    [InlineData("people", 10)]
    public async Task What_was_written_down_and_is_damaged_is_built_anew(string file, int length)
    {
        var folder = Path.Combine(data, "damaged");
        Directory.CreateDirectory(Path.Combine(folder, "index"));
        await Write(
            1,
            (
                "a",
                new Record
                {
                    Identifier = "a",
                    Title = "Moths and lamps of a coast",
                    Year = 2010,
                    People = [new("Lind", "Per")],
                }
            )
        );
        var first = NewBuild(folder);
        var told = Told(await Built(first));
        first.WriteDown();
        var path = Path.Combine(folder, "index", file);
        var bytes = await File.ReadAllBytesAsync(path);
        Assert.True(bytes.Length > length);
        await File.WriteAllBytesAsync(path, bytes[..length]);
        Assert.Equal(told, Told(await Built(NewBuild(folder))));
        await Write(
            1,
            (
                "b",
                new Record
                {
                    Identifier = "b",
                    Title = "Bats in barns of the hills",
                    Year = 2011,
                    People = [new("Lind", "Per")],
                }
            )
        );
        Assert.Equal(Told(await Built(NewBuild())), Told(await Built(NewBuild(folder))));
    }

    [Theory]
    [InlineData("columns", 150)]
    [InlineData("people", 40)]
    public async Task Not_one_bit_of_what_was_written_down_may_be_another(string file, int flips)
    {
        var folder = Path.Combine(data, "flipped");
        Directory.CreateDirectory(Path.Combine(folder, "index"));
        await Write(
            1,
            [
                .. Enumerable
                    .Range(1, 6)
                    .Select(n =>
                        (
                            $"r{n}",
                            (Record?)
                                new Record
                                {
                                    Identifier = $"r{n}",
                                    Title = $"Moths and lamps of coast number {n}",
                                    Year = 2000 + n,
                                    Doi = $"10.5555/w{n}",
                                    Abstract = "They came.",
                                    Venue = new("Verge Studies"),
                                    People = [new("Lind", "Per"), new("Berg", "Mei")],
                                    References = [new($"10.5555/w{n / 2}", $"10.5555/w{n / 2}")],
                                }
                        )
                    ),
            ]
        );
        var first = NewBuild(folder);
        await Built(first);
        first.WriteDown();
        var path = Path.Combine(folder, "index", file);
        var sound = await File.ReadAllBytesAsync(path);
        await Write(
            1,
            (
                "r7",
                new Record
                {
                    Identifier = "r7",
                    Title = "Bats in barns of the hills",
                    Year = 2011,
                    People = [new("Lind", "Per")],
                }
            )
        );
        var told = Told(await Built(NewBuild()));
        var random = new Random(5);
        for (var i = 0; i < flips; i++)
        {
            byte[] damaged = [.. sound];
            damaged[random.Next(damaged.Length)] ^= (byte)(1 << random.Next(8));
            await File.WriteAllBytesAsync(path, damaged);
            Assert.Equal(told, Told(await Built(NewBuild(folder))));
        }
        await File.WriteAllBytesAsync(path, sound);
        Assert.Equal(told, Told(await Built(NewBuild(folder))));
    }

    [Fact]
    public async Task A_work_that_cites_itself_is_tied_to_nobody()
    {
        await Write(
            1,
            (
                "a",
                new Record
                {
                    Identifier = "a",
                    Title = "A paper that cites itself at length",
                    Year = 2010,
                    Doi = "10.5555/a",
                    People = [new("Lind", "Per")],
                    References = [new("itself", "10.5555/a")],
                }
            )
        );
        Assert.Equal(0, (await Built(NewBuild())).Graph.Ties);
    }

    [Fact]
    public async Task Another_order_of_trust_is_seen_without_any_record_changed()
    {
        await Write(
            1,
            (
                "a",
                new Record
                {
                    Identifier = "a",
                    Title = "Moths & lamps of a coast",
                    Year = 2010,
                    Doi = "10.5555/a",
                    People = [new("Lind", "Per")],
                }
            )
        );
        await Write(
            2,
            (
                "b",
                new Record
                {
                    Identifier = "b",
                    Title = "Moths and lamps of a coast",
                    Year = 2010,
                    Doi = "10.5555/a",
                    People = [new("Lind", "Per")],
                }
            )
        );
        var kept = NewBuild();
        Assert.Equal("Moths & lamps of a coast", (await Built(kept)).SortTitle[1]);
        await using (var context = store.Context())
        {
            context.Databases.Single(d => d.Id == 1).Trust = 5;
            await context.SaveChangesAsync();
        }
        Assert.Equal("Moths and lamps of a coast", (await Built(kept)).SortTitle[1]);
    }
}
