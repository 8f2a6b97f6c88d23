<?php

declare(strict_types=1);

namespace App\Work\Operations;

use App\Store\DomainError;
use App\Store\RefusedFor;

/**
 * A file in gzip (RFC 1952), written and read a piece at a time. What cannot be written down to the disk, or is not what was written, is
 * told at once: a backup that only seems to be one is worse than none.
 */
final class GzFile
{
    private const CHUNK = 1_000_000;

    private const LEVEL = 6;

    /** @param  resource  $file */
    private function __construct(private readonly string $path, private $file, private readonly \DeflateContext $packer)
    {
    }

    /** @throws DomainError */
    public static function create(string $path): self
    {
        $file = @fopen($path, 'wb');
        $packer = deflate_init(ZLIB_ENCODING_GZIP, ['level' => self::LEVEL]);
        if ($file === false || $packer === false) {
            throw self::unwritable($path);
        }

        return new self($path, $file, $packer);
    }

    /** @throws DomainError when there is no room */
    public function write(string $bytes, bool $isLast = false): void
    {
        $packed = (string) deflate_add($this->packer, $bytes, $isLast ? ZLIB_FINISH : ZLIB_NO_FLUSH);
        if ($packed !== '' && @fwrite($this->file, $packed) !== strlen($packed)) {
            throw self::unwritable($this->path);
        }
    }

    /** @throws DomainError when not all of it has come to the disk */
    public function close(): void
    {
        $this->write('', true);
        if (! @fflush($this->file) || ! @fsync($this->file) || ! fclose($this->file)) {
            throw self::unwritable($this->path);
        }
    }

    /**
     * @return \Generator<int, string> what it holds, piece by piece
     *
     * @throws DomainError when it cannot be read, ends too early, or was changed since
     */
    public static function read(string $path): \Generator
    {
        $file = is_file($path) ? @fopen($path, 'rb') : false;
        $unpacker = inflate_init(ZLIB_ENCODING_GZIP);
        if ($file === false || $unpacker === false) {
            throw new DomainError('no_backup', "{$path} cannot be read.", RefusedFor::Unreadable);
        }
        try {
            while (inflate_get_status($unpacker) !== ZLIB_STREAM_END) {
                $packed = (string) fread($file, self::CHUNK);
                if ($packed === '') {
                    throw new DomainError('half', "{$path} is only a part of a backup: its end is missing.", RefusedFor::Unreadable);
                }
                // Its end holds a checksum of the whole.
                $bytes = @inflate_add($unpacker, $packed);
                if ($bytes === false) {
                    throw new DomainError('damaged', "{$path} is damaged: it is not what was written.", RefusedFor::Unreadable);
                }
                yield $bytes;
            }
        } finally {
            fclose($file);
        }
    }

    private static function unwritable(string $path): DomainError
    {
        $why = error_get_last()['message'] ?? '';

        return new DomainError('unwritable', rtrim("{$path} cannot be written. ".preg_replace('/^f\w+\(\): /', '', $why)),
            RefusedFor::Conflict);
    }
}
