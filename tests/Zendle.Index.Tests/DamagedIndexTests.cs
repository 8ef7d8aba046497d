using Zendle.Core.Queries;
using Zendle.Index.Questions;
using Record = Zendle.Core.Records.Record;

namespace Zendle.Index.Tests;

/// <summary>
/// A bit that flips on the disk changes no count: what is damaged is found at the start and put in again.
/// </summary>
public sealed class DamagedIndexTests : IDisposable
{
    private readonly string folder = Path.Combine(Path.GetTempPath(), "zendle-damaged-" + Guid.NewGuid().ToString("N"));
    private readonly Placed[] records = Made();

    public void Dispose() => Directory.Delete(folder, recursive: true);

    private static Placed[] Made()
    {
        var random = new Random(3);
        string[] words = ["moth", "lamp", "night", "pollen", "street", "hedge", "garden", "flower", "dark", "sky"];
        return
        [
            .. Enumerable
                .Range(1, 240)
                .Select(i => new Placed(
                    i,
                    i,
                    1,
                    new Record
                    {
                        Identifier = $"x{i}",
                        Title = string.Join(' ', Enumerable.Range(0, 7).Select(_ => words[random.Next(words.Length)])),
                        Abstract = string.Join(
                            ' ',
                            Enumerable.Range(0, 30).Select(_ => words[random.Next(words.Length)])
                        ),
                        Year = 2000 + i % 20,
                    }
                )),
        ];
    }

    private static int[] Counts(CorpusIndex index)
    {
        using var snapshot = index.Snapshot();
        var evaluator = new QuestionEvaluator(snapshot, null);
        return
        [
            .. new[] { "moth", "lam*", "\"night moth\"", "dark NEAR/2 sky", "title:garden", "*ow*" }.Select(q =>
                evaluator.Records(QueryReader.Read(q).Root!).Count()
            ),
        ];
    }

    /// <summary>An index of several segments, some documents of which were replaced and removed.</summary>
    private int[] Fill()
    {
        using var index = new CorpusIndex(folder);
        foreach (var chunk in records.Chunk(60))
        {
            foreach (var r in chunk)
                index.Put(r.Id, r.Record);
            index.Refresh(SmallCorpus.Columns(records), SmallCorpus.Names, chunk[^1].Id);
        }
        foreach (var r in records.Where(r => r.Id % 7 == 0))
            index.Put(r.Id, r.Record);
        index.Refresh(SmallCorpus.Columns(records), SmallCorpus.Names, 1_000);
        return Counts(index);
    }

    /// <summary>Does what a start does: puts in what is missing, or everything.</summary>
    private (int[] Counts, int PutIn, bool Anew) Start()
    {
        using var index = new CorpusIndex(folder);
        var anew = index.Sequence == 0;
        var missing =
            anew ? records.Select(r => r.Id).ToList()
            : index.IsPartial ? index.Missing(records.Select(r => r.Id))
            : [];
        foreach (var id in missing)
            index.Put(id, records[id - 1].Record);
        index.Refresh(SmallCorpus.Columns(records), SmallCorpus.Names, 1_000);
        return (Counts(index), missing.Count, anew);
    }

    [Fact]
    public void Any_bit_of_any_file_may_flip()
    {
        var expected = Fill();
        var whole = Directory
            .GetFiles(folder)
            .Where(f => !f.EndsWith("write.lock", StringComparison.Ordinal))
            .ToDictionary(f => f, File.ReadAllBytes);
        var random = new Random(17);
        var partly = 0;
        foreach (var (file, bytes) in whole)
            for (var n = 0; n < 3; n++)
            {
                foreach (var old in Directory.GetFiles(folder))
                    File.Delete(old);
                foreach (var (name, content) in whole)
                    File.WriteAllBytes(name, content);
                if (bytes.Length == 0)
                    continue;
                var damaged = (byte[])bytes.Clone();
                // Also where nobody's data stand: at the ends of the file.
                var at = n switch
                {
                    0 => 0,
                    1 => bytes.Length - 1,
                    _ => random.Next(bytes.Length),
                };
                damaged[at] ^= (byte)(1 << random.Next(8));
                File.WriteAllBytes(file, damaged);
                var (counts, putIn, anew) = Start();
                Assert.True(
                    expected.SequenceEqual(counts),
                    $"{Path.GetFileName(file)} at {at}: {string.Join(',', counts)} for {string.Join(',', expected)}"
                );
                if (putIn > 0 && !anew)
                    partly++;
            }
        // Not everything is built anew for one segment.
        Assert.True(partly > 3, $"{partly}");
    }

    [Fact]
    public void A_whole_index_is_taken_as_it_is()
    {
        var expected = Fill();
        var (counts, putIn, _) = Start();
        Assert.Equal((0, true), (putIn, expected.SequenceEqual(counts)));
    }

    [Fact]
    public void What_was_taken_out_is_known_to_be_missing_until_it_is_in_again_however_often_a_start_is_killed()
    {
        var expected = Fill();
        var largest = Directory.GetFiles(folder, "*.cfs").MaxBy(f => new FileInfo(f).Length)!;
        var bytes = File.ReadAllBytes(largest);
        bytes[bytes.Length / 2] ^= 4;
        File.WriteAllBytes(largest, bytes);
        // Starts that take the damage out and end before anything is put in again.
        for (var kill = 0; kill < 2; kill++)
        {
            using var begun = new CorpusIndex(folder);
            Assert.True(begun.IsPartial);
        }
        var (counts, putIn, anew) = Start();
        Assert.Equal(expected, counts);
        Assert.True(putIn > 0 && !anew);
        using var whole = new CorpusIndex(folder);
        Assert.False(whole.IsPartial);
    }

    [Fact]
    public void A_file_that_is_gone_or_cut_off_is_damage_too()
    {
        var expected = Fill();
        var largest = Directory
            .GetFiles(folder, "*.cfs")
            .Concat(Directory.GetFiles(folder, "*.tim"))
            .MaxBy(f => new FileInfo(f).Length)!;
        using (var file = File.OpenWrite(largest))
            file.SetLength(file.Length / 2);
        Assert.Equal(expected, Start().Counts);
        File.Delete(Directory.GetFiles(folder, "*.cfs").Concat(Directory.GetFiles(folder, "*.tim")).First());
        Assert.Equal(expected, Start().Counts);
    }
}
