namespace Zendle.Core.Terms;

/// <summary>Whether a word is older or newer than others for the same thing.</summary>
public enum WordAge
{
    /// <summary>Of about the same time, or nothing can be told.</summary>
    Same,

    /// <summary>Used earlier.</summary>
    Older,

    /// <summary>Used later.</summary>
    Newer,
}

/// <summary>In which years works use a word.</summary>
public sealed class YearsOfUse
{
    /// <summary>Fewer works with a year tell nothing.</summary>
    public const int LeastWorks = 5;

    /// <summary>A word is older when a work that uses it is so often older than one that uses the other.</summary>
    public const double Sure = 0.75;

    private readonly (int Year, int Works)[] years;

    /// <summary>Takes the years of some works. O(works).</summary>
    /// <param name="years">A year for each work that has one, in any order.</param>
    public YearsOfUse(IEnumerable<int> years)
    {
        this.years = [.. years.CountBy(y => y).Select(y => (y.Key, y.Value)).OrderBy(y => y.Key)];
        Works = this.years.Sum(y => y.Works);
    }

    /// <summary>Works with a year.</summary>
    public int Works { get; }

    /// <summary>A twentieth of the works is older; 0 for no year.</summary>
    public int From => At(Works / 20);

    /// <summary>A twentieth of the works is newer; 0 for no year.</summary>
    public int To => At(Works - 1 - (Works / 20));

    /// <summary>The year of the work at a place in the order of years; 0 where there is none.</summary>
    private int At(int place)
    {
        foreach (var (year, works) in years)
            if ((place -= works) < 0)
                return year;
        return 0;
    }

    /// <summary>
    /// How often a work of these is older than one of others, ties counted half: the common language effect size
    /// (McGraw and Wong 1992), 0 to 1; ½ where one of the two is empty. O(years of both).
    /// </summary>
    public double OlderThan(YearsOfUse others)
    {
        if (Works == 0 || others.Works == 0)
            return 0.5;
        var (older, at, before) = (0.0, 0, 0L);
        foreach (var (year, works) in others.years)
        {
            while (at < years.Length && years[at].Year < year)
                before += years[at++].Works;
            var same = at < years.Length && years[at].Year == year ? years[at].Works : 0;
            older += works * (before + (same / 2.0));
        }
        return older / Works / others.Works;
    }

    /// <summary>How a word of these years stands to one of others.</summary>
    public WordAge Beside(YearsOfUse others) =>
        Works < LeastWorks || others.Works < LeastWorks
            ? WordAge.Same
            : OlderThan(others) switch
            {
                >= Sure => WordAge.Older,
                <= 1 - Sure => WordAge.Newer,
                _ => WordAge.Same,
            };
}
