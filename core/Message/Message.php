<?php

declare(strict_types=1);

namespace VividLedger\Message;

/** One message as it goes out: rendered, with all it needs to be delivered. */
final readonly class Message
{
    /**
     * @param  list<Address>  $to
     * @param  list<Address>  $cc
     * @param  string  $html  sanitised; empty for a text message
     * @param  string  $path  how the recipients were found
     * @param  list<string>  $missing  labels of merge fields that were empty
     * @param  list<string>  $tells  what it shows, each a type, the id of a record, and a field of it
     */
    public function __construct(
        public Channel $channel,
        public array $to,
        public array $cc,
        public ?Address $replyTo,
        public string $subject,
        public string $html,
        public string $text,
        public string $path,
        public array $missing,
        public array $tells = [],
    ) {
    }

    /** @param  list<string>  $tells */
    public function telling(array $tells): self
    {
        return new self(
            channel: $this->channel, to: $this->to, cc: $this->cc, replyTo: $this->replyTo, subject: $this->subject, html: $this->html,
            text: $this->text, path: $this->path, missing: $this->missing, tells: $tells,
        );
    }

    /** @return list<string> the records of those it reaches, as what a text shows is noted */
    public function reaches(): array
    {
        return self::recordsOf([...$this->to, ...$this->cc]);
    }

    /**
     * @param  array<Address>  $addresses
     * @return list<string>
     */
    public static function recordsOf(array $addresses): array
    {
        $records = array_filter(array_map(static fn (Address $address): ?array => $address->record, $addresses));

        return array_values(array_unique(array_map(static fn (array $record): string => "{$record[0]}:{$record[1]}:", $records)));
    }

    public function toText(): string
    {
        return implode(', ', array_map(static fn (Address $address): string => $address->name, $this->to));
    }
}
