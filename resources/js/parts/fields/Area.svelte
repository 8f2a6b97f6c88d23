<script lang="ts">
    import { Textarea } from 'flowbite-svelte';
    import type { ComponentProps } from 'svelte';
    import { areaLook } from '../../theme';

    /* A text of several lines. */
    let { value = $bindable(), elementRef = $bindable(), class: looks, ...others }: ComponentProps<typeof Textarea> = $props();
</script>

<Textarea bind:value bind:elementRef class="{areaLook} {looks}" classes={{ div: 'w-full' }} {...others} />
