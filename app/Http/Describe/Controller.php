<?php

declare(strict_types=1);

namespace App\Http\Describe;

use App\Models\People\Person;
use App\Store\Access\AccessScope;
use App\Store\Access\RecordAuthorizer;
use App\Store\Actor;
use App\Store\DomainError;
use App\Store\People\PeopleStore;
use App\Store\RefusedFor;
use Illuminate\Foundation\Auth\Access\AuthorizesRequests;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Routing\Controller as BaseController;
use Symfony\Component\HttpFoundation\Response;
use VividLedger\Record\CauseKind;
use VividLedger\Schema\RecordType;
use VividLedger\Words\Words;

/** What the controllers of the API share. */
abstract class Controller extends BaseController
{
    use AuthorizesRequests;

    /**
     * A shape is answered as JSON.
     *
     * @param  string  $method
     * @param  array<array-key, mixed>  $parameters
     */
    public function callAction($method, $parameters): Response
    {
        /** @var mixed $answer whatever an action answers, which the framework takes for a response */
        $answer = parent::callAction($method, $parameters);

        return $answer instanceof Response ? $answer : new JsonResponse($answer);
    }

    protected function person(Request $request): Person
    {
        $person = $request->user();

        return $person instanceof Person ? $person : throw new \LogicException('The route lets only signed-in people through.');
    }

    protected function actor(Request $request): Actor
    {
        $person = $this->person($request);

        return new Actor($person->id, $person->isByToken() ? CauseKind::Api : CauseKind::Person);
    }

    /**
     * Somebody as a request names them, by id or by handle.
     *
     * @throws DomainError when nobody is called so
     */
    protected function personGiven(mixed $given, string $at): int
    {
        $said = is_scalar($given) ? (string) $given : '?';

        return app(PeopleStore::class)->idOf($given)
            ?? throw new DomainError('unknown_value', Words::say('There is nobody ‘{said}’.', said: $said), RefusedFor::Invalid, [
                ['at' => $at, 'code' => 'unknown_value', 'message' => Words::say(
                    'There is nobody ‘{said}’. Give an id or a handle.',
                    said: $said,
                )],
            ]);
    }

    /** @param  array<string, mixed>  $given  what a request gave, checked to be whole numbers */
    protected static function number(array $given, string $name): ?int
    {
        return isset($given[$name]) ? (int) $given[$name] : null;
    }

    protected function type(string $name): RecordType
    {
        return app(RecordAuthorizer::class)->type($name);
    }

    /** The type as whoever asks knows it. */
    protected function seenType(string $name): RecordType
    {
        return app(AccessScope::class)->sight()->type($this->type($name));
    }
}
