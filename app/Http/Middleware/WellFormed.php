<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Http\JsonSyntax;
use App\Store\DomainError;
use App\Store\RefusedFor;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use VividLedger\Words\Words;

/** Lets through only what can be read: JSON that is JSON, and text that can be kept as text. */
final class WellFormed
{
    /**
     * @param  \Closure(Request): Response  $next
     *
     * @throws DomainError with the place of what cannot be read
     */
    public function handle(Request $request, \Closure $next): Response
    {
        $this->mustBeText(rawurldecode($request->path()), '');
        if ($request->isJson()) {
            $this->mustBeJson((string) $request->getContent());
        }
        $this->mustBeText($request->input(), '');

        return $next($request);
    }

    private function mustBeJson(string $text): void
    {
        if (trim($text) === '') {
            return;
        }
        $read = json_decode($text, true);
        if (json_last_error() === JSON_ERROR_UTF8) {
            throw self::refused('bad_text', Words::say('Text has to be UTF-8.'), '');
        }
        if (json_last_error() === JSON_ERROR_DEPTH) {
            throw self::refused('too_deep', Words::say('This JSON is nested deeper than can be read.'), '');
        }
        if (json_last_error() !== JSON_ERROR_NONE) {
            $at = JsonSyntax::brokenAt($text);
            $line = substr_count($text, "\n", 0, min($at, strlen($text))) + 1;
            throw self::refused(
                'malformed_json',
                Words::say('This is not JSON: it cannot be read from byte {at} on, in line {line}.', at: $at, line: $line),
                '',
                $at,
            );
        }
        if (! is_array($read)) {
            throw self::refused('malformed_json', Words::say('What is sent has to be an object, {"name": "value"}.'), '', 0);
        }
    }

    private function mustBeText(mixed $given, string $at): void
    {
        if (is_string($given) && (str_contains($given, "\0") || ! mb_check_encoding($given, 'UTF-8'))) {
            throw self::refused('bad_text', Words::say('Text has to be UTF-8, without the character NUL.'), $at);
        }
        foreach (is_array($given) ? $given : [] as $key => $below) {
            $this->mustBeText((string) $key, $at);
            $this->mustBeText($below, "{$at}/".str_replace(['~', '/'], ['~0', '~1'], mb_scrub((string) $key)));
        }
    }

    private static function refused(string $code, string $message, string $at, ?int $position = null): DomainError
    {
        return new DomainError(
            $code,
            $message,
            RefusedFor::Unreadable,
            [['at' => $at, 'code' => $code, 'message' => $message, 'position' => $position]],
        );
    }
}
