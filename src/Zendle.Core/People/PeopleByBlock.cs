using System.IO.Hashing;
using System.Runtime.InteropServices;

namespace Zendle.Core.People;

/// <summary>
/// The people of all works, told apart block by block: when works change, only the blocks of names are looked at whose
/// mentions are others than before. Can be written down and read again, so that a start looks at none.
/// </summary>
/// <remarks>
/// Holds mentions and people packed, some 100 bytes for each name on a work. A change costs a pass over the keys of all
/// mentions, and telling apart what it touches: see <see cref="PeopleResolver"/>. Not for several threads at once.
/// </remarks>
public sealed class PeopleByBlock
{
    /// <summary>Changes whenever what is written, or how people are told apart, changes.</summary>
    private const int Version = 1;

    /// <summary>Mentions that are unpacked at once; one block may have more.</summary>
    private const int AtOnce = 50_000;

    private readonly PeopleResolver resolver = new();
    private readonly Dictionary<int, byte[]> works = [];
    private readonly Dictionary<ulong, byte[]> told = [];

    /// <summary>Whether nobody was told apart yet, so that all are told next.</summary>
    public bool IsBeginning => told.Count == 0;

    /// <summary>Sets whom a work names.</summary>
    /// <param name="workId">The work.</param>
    /// <param name="mentions">Its mentions; none takes it out.</param>
    public void Put(int workId, IReadOnlyList<Mention> mentions)
    {
        if (mentions.Count == 0)
            works.Remove(workId);
        else
            works[workId] = MentionCodec.Write(mentions);
    }

    /// <summary>Looks which blocks are others than before. Follow with <see cref="Tell"/>.</summary>
    public PeopleChange Change()
    {
        var blocks = new PeopleBlocks();
        int[] ids = [.. works.Keys.Order()];
        var (starts, sums, mentions) = (new int[ids.Length], new ulong[ids.Length], 0);
        for (var work = 0; work < ids.Length; work++)
        {
            var packed = works[ids[work]];
            (starts[work], sums[work]) = (mentions, XxHash3.HashToUInt64(packed));
            var count = MentionCodec.Count(packed);
            for (var i = 0; i < count; i++)
                blocks.Add(MentionCodec.KeysOf(packed, i));
            mentions += count;
        }
        var change = new PeopleChange(ids, starts);
        var found = new HashSet<ulong>();
        foreach (var block in blocks.Finish())
        {
            var print = Fingerprint(change, block, sums);
            found.Add(print);
            if (told.TryGetValue(print, out var people))
                change.Stay(PeopleCodec.Ids(people));
            else
                change.Come.Add((print, block));
        }
        foreach (var (print, people) in told)
            if (!found.Contains(print))
                change.Go(print, people);
        return change;
    }

    /// <summary>
    /// Tells the people of the blocks that came apart, some blocks at a time; give each to
    /// <see cref="Keep"/>, numbered, before the next are asked for.
    /// </summary>
    /// <param name="change">What <see cref="Change"/> found.</param>
    /// <param name="cancel">Stops.</param>
    public IEnumerable<IReadOnlyList<ToldBlock>> Tell(PeopleChange change, CancellationToken cancel)
    {
        for (var next = 0; next < change.Come.Count; )
        {
            var (from, mentions) = (next, 0);
            while (next < change.Come.Count && (next == from || mentions + change.Come[next].Block.Length <= AtOnce))
                mentions += change.Come[next++].Block.Length;
            yield return change
                .Come.GetRange(from, next - from)
                .AsParallel()
                .AsOrdered()
                .WithCancellation(cancel)
                .Select(b => new ToldBlock(
                    b.Print,
                    resolver.OfBlock(Array.ConvertAll(b.Block, mention => Unpacked(change, mention)), cancel)
                ))
                .ToArray();
        }
    }

    /// <summary>Keeps the people of a block, with their permanent numbers and labels.</summary>
    public void Keep(ToldBlock block) => told[block.Print] = PeopleCodec.Write(block.People);

    /// <summary>Forgets the blocks that went. The change is done.</summary>
    public void Finish(PeopleChange change)
    {
        foreach (var print in change.Gone.Keys)
            told.Remove(print);
    }

    /// <summary>Writes all down.</summary>
    public void Write(Stream stream)
    {
        using var to = new BinaryWriter(stream, System.Text.Encoding.UTF8, leaveOpen: true);
        to.Write(Version);
        to.Write(works.Count);
        foreach (var (id, packed) in works)
        {
            to.Write(id);
            Write(to, packed);
        }
        to.Write(told.Count);
        foreach (var (print, packed) in told)
        {
            to.Write(print);
            Write(to, packed);
        }
    }

    /// <summary>Reads what was written down; null for another version.</summary>
    /// <exception cref="IOException">The stream cannot be read, or ends too soon.</exception>
    public static PeopleByBlock? Read(Stream stream)
    {
        using var from = new BinaryReader(stream, System.Text.Encoding.UTF8, leaveOpen: true);
        if (from.ReadInt32() != Version)
            return null;
        var read = new PeopleByBlock();
        for (var n = from.ReadInt32(); n > 0; n--)
            read.works[from.ReadInt32()] = from.ReadBytes(from.ReadInt32());
        for (var n = from.ReadInt32(); n > 0; n--)
            read.told[from.ReadUInt64()] = from.ReadBytes(from.ReadInt32());
        return read;
    }

    private static void Write(BinaryWriter to, byte[] bytes)
    {
        to.Write(bytes.Length);
        to.Write(bytes);
    }

    private Mention Unpacked(PeopleChange change, int mention)
    {
        var (work, ordinal) = change.At(mention);
        return MentionCodec.Read(works[work], work, ordinal);
    }

    private static ulong Fingerprint(PeopleChange change, int[] block, ulong[] sums)
    {
        var hash = new XxHash3();
        Span<ulong> one = stackalloc ulong[2];
        foreach (var mention in block)
        {
            var (work, ordinal) = change.At(mention, out var index);
            (one[0], one[1]) = ((ulong)(uint)work << 32 | (uint)ordinal, sums[index]);
            hash.Append(MemoryMarshal.AsBytes(one));
        }
        return hash.GetCurrentHashAsUInt64();
    }
}

/// <summary>The people of one block of names.</summary>
/// <param name="Print">The fingerprint of the mentions they were told from.</param>
/// <param name="People">The people.</param>
public sealed record ToldBlock(ulong Print, IReadOnlyList<Person> People);

/// <summary>Which blocks of names came, went and stayed when works changed.</summary>
public sealed class PeopleChange
{
    private readonly Dictionary<ulong, byte[]> gone = [];

    private readonly int[] works;
    private readonly int[] starts;

    internal PeopleChange(int[] works, int[] starts) => (this.works, this.starts) = (works, starts);

    /// <summary>The blocks that came: fingerprint, and the ordinals of the mentions among those of all works.</summary>
    internal List<(ulong Print, int[] Block)> Come { get; } = [];

    internal IReadOnlyDictionary<ulong, byte[]> Gone => gone;

    /// <summary>Permanent numbers of people whose blocks stayed: nobody else is given them.</summary>
    public HashSet<int> Held { get; } = [];

    /// <summary>Whether nothing came and nothing went.</summary>
    public bool IsEmpty => Come.Count == 0 && gone.Count == 0;

    /// <summary>The people of each block that went.</summary>
    public IEnumerable<IReadOnlyList<Person>> Before => gone.Values.Select(PeopleCodec.Read);

    internal void Go(ulong print, byte[] people) => gone[print] = people;

    internal void Stay(IEnumerable<int> ids) => Held.UnionWith(ids);

    internal (int Work, int Ordinal) At(int mention) => At(mention, out _);

    internal (int Work, int Ordinal) At(int mention, out int index)
    {
        index = Array.BinarySearch(starts, mention);
        index = index >= 0 ? index : ~index - 1;
        return (works[index], mention - starts[index]);
    }
}
