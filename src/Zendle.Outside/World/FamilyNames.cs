namespace Zendle.Outside.World;

/// <summary>
/// Family names from two halves: a few common ones, by rank as names are (Zipf), and very many rare ones. Never the two
/// halves that stand side by side in the lists, for those are the ones that make names in use.
/// </summary>
public sealed class FamilyNames
{
    private const int CommonNames = 160;
    private const double CommonShare = 0.13;
    private readonly SharedWords words;
    private readonly double[] upTo = new double[CommonNames];

    /// <summary>Names made of some words.</summary>
    public FamilyNames(SharedWords words)
    {
        this.words = words;
        var sum = 0.0;
        for (var rank = 0; rank < CommonNames; rank++)
            upTo[rank] = sum += 1.0 / (rank + 6);
    }

    /// <summary>The next name.</summary>
    public string Next(Dice d)
    {
        if (!d.Chance(CommonShare))
            return Joined(d.Below(words.Families1.Length), d.Below(words.Families2.Length - 1));
        var at = Array.BinarySearch(upTo, d.Unit() * upTo[^1]);
        var rank = at < 0 ? ~at : at;
        return Joined(rank * 37 % words.Families1.Length, rank * 53 % (words.Families2.Length - 1));
    }

    private string Joined(int first, int apart) =>
        words.Families1[first] + words.Families2[(first + 1 + apart) % words.Families2.Length];
}
