<?php

declare(strict_types=1);

namespace App\Http\Rehearsal;

use App\Http\Moment;
use Illuminate\Foundation\Http\FormRequest;

final class LookBackInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'file' => 'required|array', 'rule' => 'nullable|integer', 'from' => ['nullable', new Moment],
            'until' => ['nullable', new Moment],
        ];
    }
}
