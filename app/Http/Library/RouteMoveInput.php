<?php

declare(strict_types=1);

namespace App\Http\Library;

use Illuminate\Foundation\Http\FormRequest;

final class RouteMoveInput extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['ids' => 'required|array|list|min:1|max:1000', 'ids.*' => 'integer|min:1'];
    }
}
