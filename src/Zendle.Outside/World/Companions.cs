namespace Zendle.Outside.World;

/// <summary>
/// Studies that came out in pairs: the same people, the same year, nearly the same title, and yet two works (of men and
/// of women, before and after, of one place and of another).
/// </summary>
public static class Companions
{
    /// <summary>What two companions differ in.</summary>
    private static readonly (string One, string Other)[] Words =
    [
        ("in male animals", "in female animals"),
        ("in prenatal exposure", "in postnatal exposure"),
        ("in managed stands", "in unmanaged stands"),
        ("under vitamin A", "under vitamin D"),
        ("Part I", "Part II"),
        ("in summer", "in winter"),
        ("in urban districts", "in rural districts"),
        ("in larvae", "in adults"),
        ("along northern slopes", "along southern slopes"),
        ("in wet years", "in dry years"),
        ("with added nitrate", "with added nitrite"),
        ("at low doses", "at high doses"),
        ("in Tollund Reach", "in Port Ambrise"),
        ("in the Isk plateau", "in the Keld basin"),
        ("above ground", "below ground"),
        ("with intraspecific contacts", "with interspecific contacts"),
        ("of symmetric lamps", "of asymmetric lamps"),
        ("in trial 1", "in trial 2"),
    ];

    /// <summary>The works with companions behind them.</summary>
    /// <param name="works">The works of a world, each at the place of its number.</param>
    /// <param name="seed">Seed of the world.</param>
    /// <param name="noise">How often things go wrong.</param>
    public static IReadOnlyList<Work> With(IReadOnlyList<Work> works, ulong seed, double noise)
    {
        var all = works.ToList();
        var late = works.Count - works.Count / 40;
        foreach (var work in works)
        {
            var d = new Dice(seed).For("companion", work.Id);
            if (
                work.Id >= late
                || work.Type is not ("article" or "thesis" or "conference paper" or "report")
                || work.Language != "eng"
                || work.About >= 0
                || work.People.Length < 2
                || !d.Chance(0.006 * Math.Max(1, noise))
            )
                continue;
            var (one, other) = d.Of(Words);
            var bare = d.Chance(0.6);
            var first = work with
            {
                Title = $"{work.Title} {one}",
                Doi = bare ? null : work.Doi,
                PreprintDoi = null,
                HasManuscript = true,
            };
            all[work.Id] = first;
            all.Add(
                first with
                {
                    Id = all.Count,
                    Title = $"{work.Title} {other}",
                    Doi = first.Doi is null ? null : first.Doi + ".2",
                    Abstract = work.Abstract.Replace(
                        "We ",
                        $"In a second part, {other}, we ",
                        StringComparison.Ordinal
                    ),
                    FirstPage = work.LastPage + 1,
                    LastPage = work.LastPage + (work.LastPage - work.FirstPage) + 1,
                    CompanionOf = work.Id,
                }
            );
        }
        return all;
    }
}
