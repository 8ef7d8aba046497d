namespace Zendle.Outside.World;

/// <summary>
/// The figures of a study. They are the study's, not a sentence's: title, abstract and text of every work that reports
/// it tell the same ones.
/// </summary>
/// <param name="Sites">How many sites, groups, stations or batches.</param>
/// <param name="PerSite">Samples of each.</param>
/// <param name="Treated">How many of the sites the factor acted on.</param>
/// <param name="From">First year of the work.</param>
/// <param name="Years">How many years it took, from 2.</param>
/// <param name="Variance">Share of the variance between sites, in per cent.</param>
/// <param name="Share">Share that was left out, empty or in error, in per cent.</param>
/// <param name="Distance">A distance, in metres or kilometres.</param>
/// <param name="Days">A length of treatment, in days.</param>
/// <param name="Levels">Levels of the factor.</param>
/// <param name="Below">How far below the effect its interval reaches, in points.</param>
/// <param name="Above">How far above.</param>
public sealed record StudyFigures(
    int Sites,
    int PerSite,
    int Treated,
    int From,
    int Years,
    int Variance,
    int Share,
    int Distance,
    int Days,
    int Levels,
    int Below,
    int Above
)
{
    /// <summary>All samples: those of every site.</summary>
    public int Samples => Sites * PerSite;

    /// <summary>Sites without the factor.</summary>
    public int Control => Sites - Treated;

    /// <summary>Last year of the work.</summary>
    public int To => From + Years - 1;

    /// <summary>Figures of a study that is first reported in a year.</summary>
    public static StudyFigures Make(Dice d, int reported)
    {
        var sites = d.Between(6, 34);
        var years = Math.Clamp((int)(3.2 * Math.Exp(0.55 * d.Bell())), 2, 19);
        return new(
            sites,
            Math.Max(4, (int)(9 * Math.Exp(0.6 * d.Bell()))),
            Math.Clamp(sites / 2 + d.Between(-2, 2), 2, sites - 2),
            reported - d.Between(1, 3) - years + 1,
            years,
            d.Between(21, 68),
            d.Between(2, 12),
            d.Between(12, 90),
            d.Between(5, 44),
            d.Between(3, 6),
            d.Between(2, 9),
            d.Between(2, 9)
        );
    }

    /// <summary>Every number a text of the study may tell of it, for checking what was written.</summary>
    /// <param name="effect">Size of the effect in per cent.</param>
    /// <param name="direction">−1 fell, 0 no difference, 1 rose.</param>
    public IReadOnlySet<int> Told(int effect, int direction)
    {
        var (low, high) = Interval(effect, direction);
        return new HashSet<int>
        {
            Sites,
            PerSite,
            Samples,
            Treated,
            Control,
            From,
            To,
            Years,
            Variance,
            Share,
            Distance,
            Days,
            Levels,
            effect,
            100 - effect,
            Math.Abs(low),
            Math.Abs(high),
        };
    }

    /// <summary>The interval of the effect, in per cent: around its size, or around nothing when there is none.</summary>
    public (int Low, int High) Interval(int effect, int direction) =>
        direction == 0 ? (-Below, Above) : (Math.Max(1, effect - Below), Math.Min(99, effect + Above));
}
