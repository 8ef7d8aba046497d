namespace Zendle.Store.Made;

/// <summary>Work ids of a run as bytes: ascending, each as the difference from the one before, 7 bits a byte.</summary>
public static class WorkIds
{
    /// <summary>Packs ids. O(ids).</summary>
    /// <param name="ascending">Ids, each larger than the one before.</param>
    public static byte[] Pack(int[] ascending)
    {
        using var to = new MemoryStream(ascending.Length + 8);
        using var writer = new BinaryWriter(to);
        writer.Write7BitEncodedInt(ascending.Length);
        var last = 0;
        foreach (var id in ascending)
        {
            writer.Write7BitEncodedInt(id - last);
            last = id;
        }
        return to.ToArray();
    }

    /// <summary>The ids that were packed, ascending. O(ids).</summary>
    /// <exception cref="EndOfStreamException">The bytes break off.</exception>
    public static int[] Unpack(byte[] bytes)
    {
        using var reader = new BinaryReader(new MemoryStream(bytes));
        var ids = new int[reader.Read7BitEncodedInt()];
        var last = 0;
        for (var i = 0; i < ids.Length; i++)
            ids[i] = last += reader.Read7BitEncodedInt();
        return ids;
    }
}
