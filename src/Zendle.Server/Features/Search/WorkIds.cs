namespace Zendle.Server.Features.Search;

/// <summary>Work ids of a run as bytes: ascending, each as the difference from the one before, 7 bits a byte.</summary>
internal static class WorkIds
{
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
