<?php

declare(strict_types=1);

namespace App\Http\People;

use App\Http\PersonGiven;
use Illuminate\Foundation\Http\FormRequest;

final class LeaveInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['to' => ['required', new PersonGiven]];
    }
}
