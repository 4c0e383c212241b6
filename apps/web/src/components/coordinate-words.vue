<script setup lang="ts">
import { computed } from 'vue';
import { coordinateKey, type CoordinateKey } from '@helb/core';
import type { StudyEnd } from '@helb/core/study';
import { endOfKey, useStudies } from '../stores/studies.ts';
import ChoiceWord from './choice-word.vue';

/** Which coordinate of which joint, chosen where it stands in a sentence. */
const props = defineProps<{ end: StudyEnd; label: string }>();
const emit = defineEmits<{ choose: [end: StudyEnd] }>();
const studies = useStudies();

const key = computed(() => coordinateKey(props.end.joint, props.end.coordinate));
const options = computed(() => ({ [key.value]: 'a joint that is gone', ...studies.coordinates }));
const choose = (chosen: string) => emit('choose', endOfKey(chosen as CoordinateKey));
</script>

<template><ChoiceWord :value="key" :options="options" :label="label" @choose="choose" /></template>
