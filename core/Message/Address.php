<?php

declare(strict_types=1);

namespace VividLedger\Message;

use VividLedger\Record\Language;

/** Somebody a message reaches: an e-mail address, a phone number, or a person in the application. */
final readonly class Address
{
    /**
     * @param  string  $address  empty for a person reached inside the application
     * @param  ?array{string, int}  $record  type and id of the contact's record, on whose account the message stands too
     */
    public function __construct(
        public string $name,
        public string $address,
        public ?int $personId = null,
        public ?array $record = null,
        public Language $language = Language::English,
    ) {
    }

    /** The same for every message to the same place. */
    public function key(): string
    {
        return $this->address !== '' ? mb_strtolower($this->address) : "person:{$this->personId}";
    }

    public function text(): string
    {
        return $this->address === '' || $this->address === $this->name ? $this->name : "{$this->name} <{$this->address}>";
    }
}
