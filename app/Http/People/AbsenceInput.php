<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Http\Moment;
use App\Http\PersonGiven;
use Illuminate\Foundation\Http\FormRequest;

final class AbsenceInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'from' => ['required', new Moment], 'until' => ['required', new Moment],
            'deputyId' => ['sometimes', 'nullable', new PersonGiven],
        ];
    }
}
