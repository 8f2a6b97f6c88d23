<?php

declare(strict_types=1);

namespace App\Http\Lists;

use Illuminate\Foundation\Http\FormRequest;

final class FindInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'required|string|max:200'];
    }
}
