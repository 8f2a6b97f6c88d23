<?php

declare(strict_types=1);

namespace VividLedger\Explain;

/** Takes typed values out of what an entry keeps; what is not there, or is of another sort, counts as nothing. */
final readonly class Kept
{
    /** @param  array<array-key, mixed>  $data */
    public function __construct(public array $data)
    {
    }

    public function text(string $name): string
    {
        $value = $this->data[$name] ?? null;

        return is_scalar($value) ? (string) $value : '';
    }

    public function number(string $name): int
    {
        $value = $this->data[$name] ?? null;

        return is_int($value) ? $value : 0;
    }

    public function is(string $name): bool
    {
        return ($this->data[$name] ?? null) === true;
    }

    public function has(string $name): bool
    {
        return isset($this->data[$name]);
    }

    /** A value of a field, as it is kept. */
    public function value(string $name): string|int|bool|null
    {
        $value = $this->data[$name] ?? null;

        return is_string($value) || is_int($value) || is_bool($value) ? $value : null;
    }

    /** A moment, kept as ISO 8601 in UTC; null for nothing, or for what is no moment. */
    public function moment(string $name): ?\DateTimeImmutable
    {
        return \DateTimeImmutable::createFromFormat('!Y-m-d\TH:i:s\Z', $this->text($name), new \DateTimeZone('UTC')) ?: null;
    }

    /** @return list<string> */
    public function texts(string $name): array
    {
        $value = $this->data[$name] ?? null;
        $texts = [];
        foreach (is_array($value) ? $value : [] as $text) {
            $texts[] = is_scalar($text) ? (string) $text : '';
        }

        return $texts;
    }

    /** @return list<self> */
    public function rows(string $name): array
    {
        $value = $this->data[$name] ?? null;
        $rows = [];
        foreach (is_array($value) ? $value : [] as $row) {
            $rows[] = new self(is_array($row) ? $row : []);
        }

        return $rows;
    }

    /** What is kept under a name of its own; null when nothing is. */
    public function below(string $name): ?self
    {
        $value = $this->data[$name] ?? null;

        return is_array($value) ? new self($value) : null;
    }
}
