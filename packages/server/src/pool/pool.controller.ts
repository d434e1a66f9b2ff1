import { createReadStream } from 'node:fs';
import {
  Body,
  Controller,
  Delete,
  Get,
  Header,
  HttpCode,
  Param,
  ParseIntPipe,
  Post,
  Put,
  Query,
  Req,
  Res,
  StreamableFile,
} from '@nestjs/common';
import { ApiGoneResponse, ApiTags, ApiUnprocessableEntityResponse } from '@nestjs/swagger';
import type { JobCard, ClaimedBatch, RendererCard } from '@fleet-rail/core/shots';
import type { Request, Response } from 'express';
import { PictureQueue } from './picture-queue.js';
import { BeatDto, ClaimDto, FailDto, NewJobDto, RendererDto } from './pool.dto.js';
import { Renderers } from './renderers.js';

/** Jobs of pictures, and the runs of them that renderers draw. */
@ApiTags('pool')
@Controller('api/pool')
export class PoolController {
  constructor(
    private readonly queue: PictureQueue,
    private readonly renderers: Renderers,
  ) {}

  @Get()
  async all(): Promise<{ jobs: JobCard[]; renderers: RendererCard[] }> {
    return { jobs: await this.queue.list(), renderers: this.renderers.list() };
  }

  @Post('jobs')
  @ApiUnprocessableEntityResponse({ description: 'The shot is refused; the message says why' })
  add(@Body() { shotId, fileName, shot, pictures, ...rest }: NewJobDto): Promise<JobCard> {
    const { name, document } = shot.columns;
    const { count, text } = pictures.plan;
    const { width, height } = rest.wish;
    // Put together as text: what was checked as text is not parsed once more.
    const work = `{"shot":${document},"pictures":${text},${JSON.stringify(rest).slice(1)}`;
    return this.queue.add({ shotId: shotId ?? null, fileName, name, pictures: count, width, height, work });
  }

  @Get('jobs/:job')
  job(@Param('job') job: string): Promise<JobCard> {
    return this.queue.open(job);
  }

  @Delete('jobs/:job')
  @HttpCode(204)
  remove(@Param('job') job: string): Promise<void> {
    return this.queue.remove(job);
  }

  @Post('jobs/:job/again')
  @HttpCode(200)
  tryAgain(@Param('job') job: string): Promise<JobCard> {
    return this.queue.tryAgain(job);
  }

  @Get('jobs/:job/work')
  @Header('Content-Type', 'application/json')
  work(@Param('job') job: string): Promise<string> {
    return this.queue.work(job);
  }

  @Get('jobs/:job/pictures/:index')
  async picture(
    @Param('job') job: string,
    @Param('index', ParseIntPipe) index: number,
  ): Promise<StreamableFile> {
    return new StreamableFile(createReadStream(await this.queue.picture(job, index)), { type: 'image/png' });
  }

  @Get('jobs/:job/file')
  async file(@Param('job') job: string): Promise<StreamableFile> {
    const { path, fileName } = await this.queue.file(job);
    return new StreamableFile(createReadStream(path), {
      type: 'application/octet-stream',
      disposition: `attachment; filename*=UTF-8''${encodeURIComponent(fileName)}`,
    });
  }

  /** 204 where nothing waits. */
  @Post('claim')
  async claim(
    @Body() { shot, job, ...self }: ClaimDto,
    @Res({ passthrough: true }) response: Response,
  ): Promise<ClaimedBatch | undefined> {
    const taken = await this.queue.claim(self.id, { shot, job });
    this.renderers.heard(self, taken?.run ?? null);
    response.status(taken === null ? 204 : 200);
    return taken ?? undefined;
  }

  @Post('batches/:run/beat')
  @HttpCode(204)
  @ApiGoneResponse({ description: 'The run is another’s now' })
  async beat(@Param('run') run: string, @Body() { renderer, done }: BeatDto): Promise<void> {
    await this.queue.beat(run, renderer, done);
    this.renderers.draws(renderer, run);
  }

  @Put('batches/:run/pictures/:index')
  @HttpCode(204)
  async givePicture(
    @Param('run') run: string,
    @Param('index', ParseIntPipe) index: number,
    @Query() { renderer }: RendererDto,
    @Body() png: unknown,
  ): Promise<void> {
    await this.queue.givePicture(run, renderer, index, Buffer.isBuffer(png) ? png : Buffer.alloc(0));
    this.renderers.draws(renderer, run);
  }

  @Post('batches/:run/given')
  @HttpCode(204)
  async give(@Param('run') run: string, @Body() { renderer }: RendererDto): Promise<void> {
    await this.queue.give(run, renderer);
    this.renderers.draws(renderer, null);
  }

  @Put('batches/:run/file')
  @HttpCode(204)
  async giveFile(
    @Param('run') run: string,
    @Query() { renderer }: RendererDto,
    @Req() request: Request,
  ): Promise<void> {
    await this.queue.giveFile(run, renderer, request);
    this.renderers.draws(renderer, null);
  }

  @Post('batches/:run/failed')
  @HttpCode(204)
  async fail(@Param('run') run: string, @Body() { renderer, problem, final }: FailDto): Promise<void> {
    await this.queue.fail(run, renderer, problem, final);
    this.renderers.draws(renderer, null);
  }
}
