<?php

declare(strict_types=1);

namespace App\Work\Outbound;

use Closure;
use Symfony\Component\Mailer\Exception\TransportException;
use Symfony\Component\Mailer\Transport\Smtp\Stream\AbstractStream;
use Symfony\Component\Mailer\Transport\Smtp\Stream\SocketStream;

/**
 * A line to a mail server that may take its time: while it is silent, whoever sends shows that the letter is still in hand. The
 * waiting times are those of RFC 5321, section 4.5.3.2.
 */
final class PatientStream extends AbstractStream
{
    private const SLICE_SECONDS = 5;

    private const COMMAND_SECONDS = 300;

    private const LETTER_SECONDS = 600;

    private const END_OF_LETTER = "\r\n.\r\n";

    /** Whether the last letter was handed over whole and never answered: it may have arrived. */
    public bool $mayHaveArrived = false;

    private bool $isHandedOver = false;

    /** @param  Closure(): void  $stillHere  called again and again while it waits; what it throws ends the sending */
    public function __construct(private readonly SocketStream $line, private readonly Closure $stillHere)
    {
        $line->setTimeout((float) self::SLICE_SECONDS);
    }

    public function initialize(): void
    {
        $this->line->initialize();
        $this->stream = $this->line->stream;
        $this->in = $this->line->in;
        $this->out = $this->line->out;
    }

    public function terminate(): void
    {
        $this->line->terminate();
        parent::terminate();
    }

    public function disableTls(): static
    {
        $this->line->disableTls();

        return $this;
    }

    public function setHost(string $host): static
    {
        $this->line->setHost($host);

        return $this;
    }

    public function setPort(int $port): static
    {
        $this->line->setPort($port);

        return $this;
    }

    public function isTLS(): bool
    {
        return $this->line->isTLS();
    }

    public function startTLS(): bool
    {
        return $this->line->startTLS();
    }

    public function write(string $bytes, bool $debug = true): void
    {
        ($this->stillHere)();
        parent::write($bytes, $debug);
        $this->isHandedOver = $bytes === self::END_OF_LETTER;
        if (str_starts_with($bytes, 'MAIL FROM')) {
            $this->mayHaveArrived = false;
        }
    }

    public function readLine(): string
    {
        if ($this->isOver()) {
            $this->mayHaveArrived = $this->mayHaveArrived || $this->isHandedOver;

            return '';
        }
        $until = time() + ($this->isHandedOver ? self::LETTER_SECONDS : self::COMMAND_SECONDS);
        $line = '';
        do {
            $piece = is_resource($this->out) ? @fgets($this->out) : false;
            $line .= $piece === false ? '' : $piece;
            if (str_ends_with($line, "\n")) {
                // An answer has come, whatever it says: nothing is uncertain any more.
                $this->isHandedOver = false;

                return $line;
            }
            ($this->stillHere)();
        } while (! $this->isOver() && time() < $until);

        $this->mayHaveArrived = $this->mayHaveArrived || $this->isHandedOver;
        throw new TransportException($this->isOver() ? 'The mail server hung up.' : 'The mail server did not answer.');
    }

    private function isOver(): bool
    {
        return ! is_resource($this->out) || feof($this->out);
    }

    protected function getReadConnectionDescription(): string
    {
        return $this->line->getHost();
    }
}
