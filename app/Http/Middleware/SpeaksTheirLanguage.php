<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use App\Models\People\Person;
use App\Store\Languages;
use Closure;
use Illuminate\Contracts\Auth\Factory;
use Illuminate\Http\Request;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VividLedger\Words\Words;

/** Answers in the language that somebody chose, or else in one that their browser asks for. */
final readonly class SpeaksTheirLanguage
{
    public function __construct(private Languages $languages, private Factory $doors)
    {
    }

    /** @param  Closure(Request): Response  $next */
    public function handle(Request $request, Closure $next): Response
    {
        $person = $this->doors->guard('sanctum')->user();
        $code = self::of($request, $person instanceof Person ? $person : null);
        $answer = $this->speaking($code, static fn (): Response => $next($request));
        $stream = $answer instanceof StreamedResponse ? $answer->getCallback() : null;
        if ($answer instanceof StreamedResponse && $stream !== null) {
            // It is written after all this.
            $answer->setCallback(fn (): mixed => $this->speaking($code, static fn (): mixed => $stream()));
        }

        return $answer;
    }

    /**
     * @template T
     *
     * @param  Closure(): T  $what
     * @return T
     */
    private function speaking(string $code, Closure $what): mixed
    {
        $this->languages->speak($code);
        try {
            return $what();
        } finally {
            $this->languages->speak(Words::OWN);
        }
    }

    /** The code of the language in which a person is answered. */
    public static function of(Request $request, ?Person $person): string
    {
        return $person->language ?? $request->getPreferredLanguage(Languages::CODES) ?? Words::OWN;
    }
}
