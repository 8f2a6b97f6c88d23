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
    ) {
    }

    public function toText(): string
    {
        return implode(', ', array_map(static fn (Address $address): string => $address->name, $this->to));
    }
}
