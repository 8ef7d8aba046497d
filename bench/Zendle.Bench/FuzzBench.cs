using System.Diagnostics;
using System.Text;
using Zendle.Core.Queries;

namespace Zendle.Bench;

/// <summary>
/// A million generated lines through the reader: no exception, every fault with a place inside the line, and how long
/// the slowest took.
/// </summary>
internal static class FuzzBench
{
    private static readonly string[] Pieces =
    [
        "moth",
        "mot*",
        "*",
        "?",
        "*ing",
        "\"",
        "“",
        "(",
        ")",
        " AND ",
        " OR ",
        " NOT ",
        " and ",
        " or ",
        "NEAR/3 ",
        "NEAR/0 ",
        "NEAR/1000 ",
        "NEAR/",
        "title:",
        "year:",
        "year:1990-2000",
        "nosuch:",
        ":",
        "-",
        "é",
        "光",
        "\u0301",
        "\0",
        "\r\n",
        "\t",
        " ",
        " ",
        "&&",
        "||",
        "!",
        "~",
        "^2",
        "[",
        "]",
        "{",
        "0.05",
        "10.5555/x.1",
        "\ud83d\ude80",
        "doi:",
        "'",
        "#",
        "%",
        "\\",
        "light-trap",
        "of the",
    ];

    public static void Run(int seed, int lines = 1_000_000)
    {
        var (random, watch, slowest, slowestLine, faults) = (new Random(seed), Stopwatch.StartNew(), 0.0, "", 0);
        var text = new StringBuilder();
        for (var i = 0; i < lines; i++)
        {
            text.Clear();
            for (var n = random.Next(1, random.Next(100) == 0 ? 400 : 14); n > 0; n--)
                text.Append(
                    random.Next(12) == 0
                        ? ((char)random.Next(1, 0x3000)).ToString()
                        : Pieces[random.Next(Pieces.Length)]
                );
            var line = text.ToString();
            var started = Stopwatch.GetTimestamp();
            var reading = QueryReader.Read(line);
            var took = Stopwatch.GetElapsedTime(started).TotalMilliseconds;
            if (took > slowest)
                (slowest, slowestLine) = (took, line);
            foreach (var problem in reading.Problems)
            {
                faults++;
                if (problem.Span.Start < 0 || problem.Span.End > line.Length || problem.Sentence.Length == 0)
                    throw new InvalidOperationException($"A fault without its place: {problem} in {line}");
            }
            if (reading.Root is null && reading.Problems.IsEmpty)
                throw new InvalidOperationException($"Nothing to search and nothing said: {line}");
        }
        Console.WriteLine(
            $"{lines:N0} lines read in {watch.Elapsed.TotalSeconds:N1} s, {faults:N0} faults, each with its "
                + $"place; the slowest took {slowest:N1} ms ({slowestLine.Length} characters)"
        );
    }
}
