namespace Zendle.Core.Spelling;

/// <summary>
/// How far a word as it was typed is from a word as it is spelled: the least sum of slips that makes one of the other
/// (optimal string alignment: Damerau 1964, Wagner and Fischer 1974), where the slips that fingers and ears make most
/// weigh less than others.
/// </summary>
public static class SlipCost
{
    /// <summary>What a letter too many, one missing or another one weighs where nothing explains it.</summary>
    public const double Letter = 1;

    private const double Doubled = 0.6,
        Swapped = 0.65,
        NextKey = 0.75,
        Sound = 0.75,
        Missing = 0.85,
        Beginning = 0.35;

    /// <summary>Longest word that is held against others, in characters.</summary>
    public const int Longest = 40;

    // Letters and the keys around them, on the common layouts of Latin keyboards.
    private static readonly string[] Keys = ["1234567890", "qwertyuiop", "asdfghjkl", "zxcvbnm"];

    private static readonly string[] Sounds =
    [
        "aeiouy",
        "ckqsx",
        "sz",
        "bp",
        "dt",
        "fv",
        "mn",
        "gj",
        "vw",
        "il1",
        "o0",
    ];

    private static readonly bool[] Near = NearKeys();
    private static readonly bool[] Alike = SameSounds();

    /// <summary>
    /// The cost of the cheapest way from one word to another; <see cref="double.PositiveInfinity"/> for words longer
    /// than <see cref="Longest"/>. O(product of lengths).
    /// </summary>
    /// <param name="typed">The word as it was typed, folded.</param>
    /// <param name="meant">The word as it is spelled, folded.</param>
    public static double Of(ReadOnlySpan<char> typed, ReadOnlySpan<char> meant)
    {
        if (typed.Length > Longest || meant.Length > Longest)
            return double.PositiveInfinity;
        var width = meant.Length + 1;
        Span<double> room = stackalloc double[3 * (Longest + 1)];
        var before = room[..width];
        var last = room.Slice(width, width);
        var now = room.Slice(2 * width, width);
        last[0] = 0;
        for (var j = 1; j <= meant.Length; j++)
            last[j] = last[j - 1] + Single(meant, j - 1, Missing);
        for (var i = 1; i <= typed.Length; i++)
        {
            now[0] = last[0] + Single(typed, i - 1, Letter);
            for (var j = 1; j <= meant.Length; j++)
            {
                var best = Math.Min(last[j] + Single(typed, i - 1, Letter), now[j - 1] + Single(meant, j - 1, Missing));
                best = Math.Min(best, last[j - 1] + Other(typed[i - 1], meant[j - 1], j - 1));
                if (
                    i > 1
                    && j > 1
                    && typed[i - 1] == meant[j - 2]
                    && typed[i - 2] == meant[j - 1]
                    && typed[i - 1] != typed[i - 2]
                )
                    best = Math.Min(best, before[j - 2] + Swapped);
                now[j] = best;
            }
            var free = before;
            before = last;
            last = now;
            now = free;
        }
        return last[meant.Length];
    }

    /// <summary>A letter too many, or one missing: less where it only doubles its neighbour.</summary>
    private static double Single(ReadOnlySpan<char> word, int at, double cost)
    {
        var doubles = at > 0 && word[at] == word[at - 1];
        return (doubles ? Doubled : cost) + (at == 0 ? Beginning : 0);
    }

    private static double Other(char typed, char meant, int place)
    {
        if (typed == meant)
            return 0;
        var pair = Pair(typed, meant);
        return (
                pair < 0 ? Letter
                : Near[pair] ? NextKey
                : Alike[pair] ? Sound
                : Letter
            ) + (place == 0 ? Beginning : 0);
    }

    private static int Pair(char a, char b) => a < 128 && b < 128 ? a << 7 | b : -1;

    private static bool[] NearKeys()
    {
        var near = new bool[128 * 128];
        for (var row = 0; row < Keys.Length; row++)
        for (var column = 0; column < Keys[row].Length; column++)
        for (var r = Math.Max(0, row - 1); r <= Math.Min(Keys.Length - 1, row + 1); r++)
        for (var c = column - 1; c <= column + 1; c++)
            if (
                c >= 0
                && c < Keys[r].Length
                && (r, c) != (row, column)
                && !(r > row && c > column)
                && !(r < row && c < column)
            )
                near[Keys[row][column] << 7 | Keys[r][c]] = true;
        return near;
    }

    private static bool[] SameSounds()
    {
        var alike = new bool[128 * 128];
        foreach (var group in Sounds)
        foreach (var a in group)
        foreach (var b in group)
            alike[a << 7 | b] = a != b;
        return alike;
    }
}
