<?php

declare(strict_types=1);

namespace Tests\Browser\Support;

use Closure;
use Facebook\WebDriver\WebDriverElement;

/**
 * What a test has seen on the screen. The screen may be drawn anew between the look and the act, so that the element is
 * another one by then: each act looks again until it finds one that takes it, as a person would.
 */
final readonly class Seen
{
    /**
     * @param  Closure(): ?WebDriverElement  $find  looks once
     * @param  Closure(callable(): mixed, string): mixed  $until  tries until it comes to something
     */
    public function __construct(private Closure $find, private Closure $until, private string $what)
    {
    }

    public function click(): self
    {
        return $this->act(static fn (WebDriverElement $element) => $element->click());
    }

    public function clear(): self
    {
        return $this->act(static fn (WebDriverElement $element) => $element->clear());
    }

    /** @param  string|list<string>  $keys */
    public function sendKeys(string|array $keys): self
    {
        return $this->act(static fn (WebDriverElement $element) => $element->sendKeys($keys));
    }

    public function getText(): string
    {
        return (string) $this->ask(static fn (WebDriverElement $element): string => $element->getText());
    }

    public function getAttribute(string $name): ?string
    {
        $value = $this->ask(static fn (WebDriverElement $element): array => [$element->getAttribute($name)])[0];

        return $value === null ? null : (string) $value;
    }

    public function isEnabled(): bool
    {
        return $this->ask(static fn (WebDriverElement $element): array => [$element->isEnabled()])[0];
    }

    public function isSelected(): bool
    {
        return $this->ask(static fn (WebDriverElement $element): array => [$element->isSelected()])[0];
    }

    /** @param  callable(WebDriverElement): mixed  $act */
    public function act(callable $act): self
    {
        $this->ask(static function (WebDriverElement $element) use ($act): true {
            $act($element);

            return true;
        });

        return $this;
    }

    /** @param  callable(WebDriverElement): mixed  $question */
    private function ask(callable $question): mixed
    {
        return ($this->until)(function () use ($question): mixed {
            $element = ($this->find)();

            return $element === null ? null : $question($element);
        }, $this->what);
    }
}
