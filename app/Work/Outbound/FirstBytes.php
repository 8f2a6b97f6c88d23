<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use GuzzleHttp\Psr7\StreamDecoratorTrait;
use GuzzleHttp\Psr7\Utils;
use Psr\Http\Message\StreamInterface;

/** Where an answer is read into: it keeps the first bytes and lets the rest go by, so that no answer is larger here than that. */
final class FirstBytes implements StreamInterface
{
    use StreamDecoratorTrait;

    private StreamInterface $stream;

    private int $kept = 0;

    public function __construct(private readonly int $most)
    {
        $this->stream = Utils::streamFor('');
    }

    public function write($string): int
    {
        $text = (string) $string;
        $this->kept += $this->stream->write(substr($text, 0, max(0, $this->most - $this->kept)));

        return strlen($text);
    }
}
