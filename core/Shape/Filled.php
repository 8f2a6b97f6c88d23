<?php

declare(strict_types=1);

namespace VividLedger\Shape;

/** What the places of a sentence were read to, by their keys. */
final class Filled
{
    /** @var array<string, mixed> */
    private array $values = [];

    public function put(string $key, mixed $value): void
    {
        $this->values[$key] = $value;
    }

    /**
     * @template T of object
     *
     * @param  class-string<T>  $class
     * @return T
     *
     * @throws \LogicException when nothing of that class was read, although the sentence is finished
     */
    public function the(string $key, string $class): object
    {
        $value = $this->values[$key] ?? null;

        return $value instanceof $class ? $value : throw new \LogicException("There is no {$class} at ‘{$key}’.");
    }

    /**
     * @template T of object
     *
     * @param  class-string<T>  $class
     * @return ?T
     */
    public function any(string $key, string $class): ?object
    {
        return isset($this->values[$key]) ? $this->the($key, $class) : null;
    }

    /**
     * @template T of object
     *
     * @param  class-string<T>  $class
     * @return list<T>
     */
    public function all(string $key, string $class): array
    {
        $values = $this->values[$key] ?? [];

        return array_values(array_filter(is_array($values) ? $values : [], static fn (mixed $value): bool => $value instanceof $class));
    }

    /** What was read, whatever it is; null for nothing. */
    public function raw(string $key): mixed
    {
        return $this->values[$key] ?? null;
    }

    public function number(string $key): int
    {
        $value = $this->values[$key] ?? null;

        return is_int($value) ? $value : throw new \LogicException("There is no number at ‘{$key}’.");
    }

    public function text(string $key): string
    {
        $value = $this->values[$key] ?? '';

        return is_string($value) ? $value : throw new \LogicException("There is no text at ‘{$key}’.");
    }

    public function flag(string $key): bool
    {
        return ($this->values[$key] ?? null) === true;
    }
}
