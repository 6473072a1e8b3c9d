namespace LivelyTern.Formats;

/// <summary>A stream that is only read, from its start to its end.</summary>
internal abstract class ReadingStream : Stream
{
    public override bool CanRead => true;

    public override bool CanSeek => false;

    public override bool CanWrite => false;

    public override long Length => throw new NotSupportedException();

    public override long Position { get => throw new NotSupportedException(); set => throw new NotSupportedException(); }

    public abstract override int Read(Span<byte> buffer);

    public override int Read(byte[] buffer, int offset, int count) => Read(buffer.AsSpan(offset, count));

    public override ValueTask<int> ReadAsync(Memory<byte> buffer, CancellationToken cancellationToken = default) => new(Read(buffer.Span));

    public override Task<int> ReadAsync(byte[] buffer, int offset, int count, CancellationToken cancellationToken) =>
        Task.FromResult(Read(buffer.AsSpan(offset, count)));

    public override void Flush()
    {
    }

    public override long Seek(long offset, SeekOrigin origin) => throw new NotSupportedException();

    public override void SetLength(long value) => throw new NotSupportedException();

    public override void Write(byte[] buffer, int offset, int count) => throw new NotSupportedException();
}

/// <summary>A stream that counts what was taken from it, and refuses more than a limit.</summary>
internal sealed class Counted(Stream inner, long most = long.MaxValue) : ReadingStream
{
    public long Taken { get; private set; }

    public override int Read(Span<byte> buffer)
    {
        var read = inner.Read(buffer);
        Taken += read;
        return Taken <= most ? read : throw new UnreadableFileException(UnreadableFileException.TooLarge);
    }

    protected override void Dispose(bool disposing)
    {
        if (disposing) inner.Dispose();
        base.Dispose(disposing);
    }
}
