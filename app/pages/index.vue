<template>
  <h1>Plain Match</h1>
</template>
